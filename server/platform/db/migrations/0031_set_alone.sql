CREATE TABLE `bike_code` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`bike_id` varchar(36) NOT NULL,
	`code` varchar(16) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`ended_at` datetime(3),
	CONSTRAINT `bike_code_id` PRIMARY KEY(`id`),
	CONSTRAINT `bike_code_code_unique` UNIQUE(`code`)
);
--> statement-breakpoint
CREATE TABLE `alone_setup` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`bike_id` varchar(36) NOT NULL,
	`name` varchar(120) NOT NULL,
	`marks` json NOT NULL,
	`own_rows` text NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`ended_at` datetime(3),
	CONSTRAINT `alone_setup_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `studio` ADD `riders_alone` boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE `bike_code` ADD CONSTRAINT `bike_code_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_code` ADD CONSTRAINT `bike_code_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `alone_setup` ADD CONSTRAINT `alone_setup_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `alone_setup` ADD CONSTRAINT `alone_setup_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `bike_code_bike` ON `bike_code` (`bike_id`,`ended_at`);--> statement-breakpoint
CREATE INDEX `alone_setup_studio` ON `alone_setup` (`studio_id`,`ended_at`,`created_at`);--> statement-breakpoint
CREATE INDEX `alone_setup_bike` ON `alone_setup` (`bike_id`,`created_at`);