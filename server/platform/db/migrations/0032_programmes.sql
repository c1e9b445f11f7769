CREATE TABLE `programme` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`body` text NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	`resumed_at` datetime(3),
	`ended_at` datetime(3),
	`ended_by` varchar(36),
	CONSTRAINT `programme_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `programme_tick` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`programme_id` varchar(36) NOT NULL,
	`item` int NOT NULL,
	`day` varchar(10) NOT NULL,
	`link_id` varchar(36),
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `programme_tick_id` PRIMARY KEY(`id`),
	CONSTRAINT `programme_tick_day` UNIQUE(`programme_id`,`item`,`day`)
);
--> statement-breakpoint
ALTER TABLE `programme` ADD CONSTRAINT `programme_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `programme` ADD CONSTRAINT `programme_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `programme` ADD CONSTRAINT `programme_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `programme` ADD CONSTRAINT `programme_ended_by_user_id_fk` FOREIGN KEY (`ended_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `programme_tick` ADD CONSTRAINT `programme_tick_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `programme_tick` ADD CONSTRAINT `programme_tick_programme_id_programme_id_fk` FOREIGN KEY (`programme_id`) REFERENCES `programme`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `programme_tick` ADD CONSTRAINT `programme_tick_link_id_member_link_id_fk` FOREIGN KEY (`link_id`) REFERENCES `member_link`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `programme_member` ON `programme` (`member_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `programme_studio` ON `programme` (`studio_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `programme_tick_studio` ON `programme_tick` (`studio_id`);