CREATE TABLE `member_merge` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`name` varchar(120) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	CONSTRAINT `member_merge_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `class_follow_up` (
	`class_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`kind` enum('redFlag','felt','cueFailed','trialDue','noted','warmUp') NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`state` enum('done','nextClass','handed') NOT NULL,
	`handed_to` varchar(36),
	`said` varchar(400) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	CONSTRAINT `class_follow_up_class_id_member_id_kind_pk` PRIMARY KEY(`class_id`,`member_id`,`kind`)
);
--> statement-breakpoint
ALTER TABLE `bike` ADD `retired_at` datetime(3);--> statement-breakpoint
ALTER TABLE `bike` ADD `taken_number` int GENERATED ALWAYS AS (IF(`retired_at` IS NULL, `number`, NULL)) STORED;--> statement-breakpoint
ALTER TABLE `studio_class` ADD `teacher_id` varchar(36);--> statement-breakpoint
ALTER TABLE `member` ADD `number` varchar(40);--> statement-breakpoint
ALTER TABLE `member` ADD `email` varchar(254);--> statement-breakpoint
ALTER TABLE `member` ADD `stature_mm` int;--> statement-breakpoint
ALTER TABLE `bike` ADD CONSTRAINT `bike_taken_number` UNIQUE(`studio_id`,`taken_number`);--> statement-breakpoint
ALTER TABLE `bike` DROP INDEX `bike_number`;--> statement-breakpoint
ALTER TABLE `member` ADD CONSTRAINT `member_number` UNIQUE(`studio_id`,`number`);--> statement-breakpoint
ALTER TABLE `member_merge` ADD CONSTRAINT `member_merge_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `member_merge` ADD CONSTRAINT `member_merge_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `member_merge` ADD CONSTRAINT `member_merge_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_follow_up` ADD CONSTRAINT `class_follow_up_class_id_studio_class_id_fk` FOREIGN KEY (`class_id`) REFERENCES `studio_class`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_follow_up` ADD CONSTRAINT `class_follow_up_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_follow_up` ADD CONSTRAINT `class_follow_up_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_follow_up` ADD CONSTRAINT `class_follow_up_handed_to_user_id_fk` FOREIGN KEY (`handed_to`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_follow_up` ADD CONSTRAINT `class_follow_up_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `member_merge_member` ON `member_merge` (`member_id`);--> statement-breakpoint
CREATE INDEX `member_merge_studio` ON `member_merge` (`studio_id`);--> statement-breakpoint
CREATE INDEX `follow_up_member` ON `class_follow_up` (`member_id`,`state`);--> statement-breakpoint
CREATE INDEX `follow_up_handed` ON `class_follow_up` (`studio_id`,`state`,`handed_to`);--> statement-breakpoint
ALTER TABLE `studio_class` ADD CONSTRAINT `studio_class_teacher_id_user_id_fk` FOREIGN KEY (`teacher_id`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;