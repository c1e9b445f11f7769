CREATE TABLE `rider_plan` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`kind` enum('starter','recheck','cleats','shoes','promise') NOT NULL,
	`body` json NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	`looked_at` datetime(3),
	`ended_at` datetime(3),
	`ended_by` varchar(36),
	CONSTRAINT `rider_plan_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `class_follow_up` MODIFY COLUMN `kind` enum('redFlag','felt','cueFailed','trialDue','planDue','moved','noted','warmUp') NOT NULL;--> statement-breakpoint
ALTER TABLE `mark_move` MODIFY COLUMN `why` enum('comfort','sign','felt','checked','planned') NOT NULL;--> statement-breakpoint
ALTER TABLE `rider_plan` ADD CONSTRAINT `rider_plan_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rider_plan` ADD CONSTRAINT `rider_plan_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rider_plan` ADD CONSTRAINT `rider_plan_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rider_plan` ADD CONSTRAINT `rider_plan_ended_by_user_id_fk` FOREIGN KEY (`ended_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `rider_plan_member` ON `rider_plan` (`member_id`,`ended_at`);--> statement-breakpoint
CREATE INDEX `rider_plan_studio` ON `rider_plan` (`studio_id`,`ended_at`);