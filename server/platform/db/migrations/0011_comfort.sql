CREATE TABLE `complaint` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`bike_id` varchar(36),
	`class_id` varchar(36),
	`note_id` varchar(36),
	`what` varchar(30) NOT NULL,
	`side` enum('left','right','both'),
	`strength` int NOT NULL,
	`moment` enum('seated','standing','late','after','hardEfforts'),
	`lasts` boolean,
	`quality` json NOT NULL,
	`health` json NOT NULL,
	`line` varchar(200) NOT NULL,
	`told_by` enum('instructor','member') NOT NULL,
	`link_id` varchar(36),
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36),
	`handed_at` datetime(3),
	`handed_by` varchar(36),
	`handed_to` varchar(120),
	`closed_at` datetime(3),
	`closed_by` varchar(36),
	CONSTRAINT `complaint_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `trial` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`complaint_id` varchar(36) NOT NULL,
	`cause` varchar(30) NOT NULL,
	`axis` enum('seatHeight','seatSlide','barHeight','barSlide','tilt') NOT NULL,
	`direction` enum('up','down','forward','back') NOT NULL,
	`bike_id` varchar(36),
	`from_marks` json,
	`to_marks` json,
	`mm` double,
	`deg` double,
	`large` boolean NOT NULL,
	`said` varchar(400) NOT NULL,
	`because` json NOT NULL,
	`expects` json NOT NULL,
	`reason` varchar(200),
	`weeks` int NOT NULL,
	`rating_before` int NOT NULL,
	`from_entry_id` varchar(36),
	`entry_id` varchar(36),
	`started_at` datetime(3) NOT NULL,
	`started_by` varchar(36) NOT NULL,
	`ended_at` datetime(3),
	`ended_by` varchar(36),
	`outcome` enum('keep','undo','next'),
	CONSTRAINT `trial_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `trial_rating` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`trial_id` varchar(36) NOT NULL,
	`rating` int NOT NULL,
	`told_by` enum('instructor','member') NOT NULL,
	`link_id` varchar(36),
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36),
	CONSTRAINT `trial_rating_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `register_entry` MODIFY COLUMN `source` enum('setUp','restored','translated','tape','change','imported','trial') NOT NULL;--> statement-breakpoint
ALTER TABLE `studio` ADD `referral` text;--> statement-breakpoint
ALTER TABLE `complaint` ADD CONSTRAINT `complaint_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `complaint` ADD CONSTRAINT `complaint_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `complaint` ADD CONSTRAINT `complaint_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `complaint` ADD CONSTRAINT `complaint_class_id_studio_class_id_fk` FOREIGN KEY (`class_id`) REFERENCES `studio_class`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `complaint` ADD CONSTRAINT `complaint_note_id_class_note_id_fk` FOREIGN KEY (`note_id`) REFERENCES `class_note`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `complaint` ADD CONSTRAINT `complaint_link_id_member_link_id_fk` FOREIGN KEY (`link_id`) REFERENCES `member_link`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `complaint` ADD CONSTRAINT `complaint_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `complaint` ADD CONSTRAINT `complaint_handed_by_user_id_fk` FOREIGN KEY (`handed_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `complaint` ADD CONSTRAINT `complaint_closed_by_user_id_fk` FOREIGN KEY (`closed_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial` ADD CONSTRAINT `trial_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial` ADD CONSTRAINT `trial_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial` ADD CONSTRAINT `trial_complaint_id_complaint_id_fk` FOREIGN KEY (`complaint_id`) REFERENCES `complaint`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial` ADD CONSTRAINT `trial_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial` ADD CONSTRAINT `trial_from_entry_id_register_entry_id_fk` FOREIGN KEY (`from_entry_id`) REFERENCES `register_entry`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial` ADD CONSTRAINT `trial_entry_id_register_entry_id_fk` FOREIGN KEY (`entry_id`) REFERENCES `register_entry`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial` ADD CONSTRAINT `trial_started_by_user_id_fk` FOREIGN KEY (`started_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial` ADD CONSTRAINT `trial_ended_by_user_id_fk` FOREIGN KEY (`ended_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial_rating` ADD CONSTRAINT `trial_rating_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial_rating` ADD CONSTRAINT `trial_rating_trial_id_trial_id_fk` FOREIGN KEY (`trial_id`) REFERENCES `trial`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial_rating` ADD CONSTRAINT `trial_rating_link_id_member_link_id_fk` FOREIGN KEY (`link_id`) REFERENCES `member_link`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `trial_rating` ADD CONSTRAINT `trial_rating_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `complaint_member` ON `complaint` (`member_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `complaint_studio` ON `complaint` (`studio_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `trial_member` ON `trial` (`member_id`,`started_at`);--> statement-breakpoint
CREATE INDEX `trial_running` ON `trial` (`studio_id`,`ended_at`,`member_id`);--> statement-breakpoint
CREATE INDEX `trial_bike` ON `trial` (`bike_id`,`ended_at`);--> statement-breakpoint
CREATE INDEX `rating_trial` ON `trial_rating` (`trial_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `rating_studio` ON `trial_rating` (`studio_id`);