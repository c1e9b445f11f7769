CREATE TABLE `saddle` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`model` json NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	CONSTRAINT `saddle_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `saddle_fitting` (
	`position` bigint AUTO_INCREMENT NOT NULL,
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`bike_id` varchar(36) NOT NULL,
	`saddle_id` varchar(36),
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	CONSTRAINT `saddle_fitting_position` PRIMARY KEY(`position`),
	CONSTRAINT `saddle_fitting_id_unique` UNIQUE(`id`)
);
--> statement-breakpoint
ALTER TABLE `saddle` ADD CONSTRAINT `saddle_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `saddle` ADD CONSTRAINT `saddle_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `saddle_fitting` ADD CONSTRAINT `saddle_fitting_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `saddle_fitting` ADD CONSTRAINT `saddle_fitting_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `saddle_fitting` ADD CONSTRAINT `saddle_fitting_saddle_id_saddle_id_fk` FOREIGN KEY (`saddle_id`) REFERENCES `saddle`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `saddle_fitting` ADD CONSTRAINT `saddle_fitting_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `saddle_fitting_bike` ON `saddle_fitting` (`bike_id`,`position`);