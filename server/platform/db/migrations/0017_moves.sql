CREATE TABLE `mark_move` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`bike_id` varchar(36) NOT NULL,
	`class_id` varchar(36),
	`axis` enum('seatHeight','seatSlide','barHeight','barSlide') NOT NULL,
	`from_label` varchar(40) NOT NULL,
	`to_label` varchar(40) NOT NULL,
	`why` enum('comfort','sign','felt','checked') NOT NULL,
	`again` enum('tooFar','noHelp','worse','otherThing','wish'),
	`from_entry_id` varchar(36) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	`undone_at` datetime(3),
	CONSTRAINT `mark_move_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `class_follow_up` MODIFY COLUMN `kind` enum('redFlag','felt','cueFailed','trialDue','moved','noted','warmUp') NOT NULL;--> statement-breakpoint
ALTER TABLE `register_entry` MODIFY COLUMN `source` enum('setUp','restored','translated','tape','change','imported','trial','moved') NOT NULL;--> statement-breakpoint
ALTER TABLE `class_note` ADD `hands` int;--> statement-breakpoint
ALTER TABLE `mark_move` ADD CONSTRAINT `mark_move_id_register_entry_id_fk` FOREIGN KEY (`id`) REFERENCES `register_entry`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `mark_move` ADD CONSTRAINT `mark_move_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `mark_move` ADD CONSTRAINT `mark_move_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `mark_move` ADD CONSTRAINT `mark_move_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `mark_move` ADD CONSTRAINT `mark_move_class_id_studio_class_id_fk` FOREIGN KEY (`class_id`) REFERENCES `studio_class`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `mark_move` ADD CONSTRAINT `mark_move_from_entry_id_register_entry_id_fk` FOREIGN KEY (`from_entry_id`) REFERENCES `register_entry`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `mark_move` ADD CONSTRAINT `mark_move_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `mark_move_class` ON `mark_move` (`class_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `mark_move_member` ON `mark_move` (`member_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `mark_move_studio` ON `mark_move` (`studio_id`,`created_at`);