CREATE TABLE `account` (
	`id` varchar(36) NOT NULL,
	`account_id` varchar(190) NOT NULL,
	`provider_id` varchar(60) NOT NULL,
	`user_id` varchar(36) NOT NULL,
	`access_token` text,
	`refresh_token` text,
	`id_token` text,
	`access_token_expires_at` datetime(3),
	`refresh_token_expires_at` datetime(3),
	`scope` text,
	`password` text,
	`created_at` datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	`updated_at` datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	CONSTRAINT `account_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `bike` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`type_id` varchar(36) NOT NULL,
	`number` int NOT NULL,
	`own` json NOT NULL,
	CONSTRAINT `bike_id` PRIMARY KEY(`id`),
	CONSTRAINT `bike_number` UNIQUE(`studio_id`,`number`)
);
--> statement-breakpoint
CREATE TABLE `bike_type` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`definition` json NOT NULL,
	CONSTRAINT `bike_type_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `class_note` (
	`id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`bike_id` varchar(36) NOT NULL,
	`region` varchar(20) NOT NULL,
	`sign` varchar(40) NOT NULL,
	`side` enum('left','right','both') NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`made_by` varchar(36) NOT NULL,
	`withdrawn_at` datetime(3),
	CONSTRAINT `class_note_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `evidence` (
	`position` bigint AUTO_INCREMENT NOT NULL,
	`id` varchar(36) NOT NULL,
	`setup_id` varchar(36) NOT NULL,
	`row` json NOT NULL,
	`seen_at` datetime(3) NOT NULL,
	`seen_by` varchar(36) NOT NULL,
	CONSTRAINT `evidence_position` PRIMARY KEY(`position`),
	CONSTRAINT `evidence_id_unique` UNIQUE(`id`)
);
--> statement-breakpoint
CREATE TABLE `member` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`name` varchar(120) NOT NULL,
	`added_at` datetime(3) NOT NULL,
	`added_by` varchar(36) NOT NULL,
	CONSTRAINT `member_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `rate_limit` (
	`id` varchar(36) NOT NULL,
	`key` varchar(190) NOT NULL,
	`count` int NOT NULL,
	`last_request` bigint NOT NULL,
	CONSTRAINT `rate_limit_id` PRIMARY KEY(`id`),
	CONSTRAINT `rate_limit_key_unique` UNIQUE(`key`)
);
--> statement-breakpoint
CREATE TABLE `seating` (
	`position` bigint AUTO_INCREMENT NOT NULL,
	`id` varchar(36) NOT NULL,
	`bike_id` varchar(36) NOT NULL,
	`member_id` varchar(36),
	`day` varchar(10) NOT NULL,
	`at` datetime(3) NOT NULL,
	`by` varchar(36) NOT NULL,
	CONSTRAINT `seating_position` PRIMARY KEY(`position`),
	CONSTRAINT `seating_id_unique` UNIQUE(`id`)
);
--> statement-breakpoint
CREATE TABLE `session` (
	`id` varchar(36) NOT NULL,
	`token` varchar(190) NOT NULL,
	`user_id` varchar(36) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`ip_address` varchar(60),
	`user_agent` text,
	`created_at` datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	`updated_at` datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	CONSTRAINT `session_id` PRIMARY KEY(`id`),
	CONSTRAINT `session_token_unique` UNIQUE(`token`)
);
--> statement-breakpoint
CREATE TABLE `setup` (
	`id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`bike_id` varchar(36) NOT NULL,
	`started_at` datetime(3) NOT NULL,
	`started_by` varchar(36) NOT NULL,
	`finished_at` datetime(3),
	`finished_by` varchar(36),
	`numbers_id` varchar(36),
	CONSTRAINT `setup_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `studio` (
	`id` varchar(36) NOT NULL,
	`name` varchar(120) NOT NULL,
	`place` varchar(120) NOT NULL,
	`time_zone` varchar(60) NOT NULL,
	`school` json NOT NULL,
	CONSTRAINT `studio_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `user` (
	`id` varchar(36) NOT NULL,
	`name` varchar(120) NOT NULL,
	`email` varchar(190) NOT NULL,
	`email_verified` boolean NOT NULL DEFAULT false,
	`image` text,
	`username` varchar(60),
	`display_username` varchar(60),
	`created_at` datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	`updated_at` datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	CONSTRAINT `user_id` PRIMARY KEY(`id`),
	CONSTRAINT `user_email_unique` UNIQUE(`email`),
	CONSTRAINT `user_username_unique` UNIQUE(`username`)
);
--> statement-breakpoint
CREATE TABLE `verification` (
	`id` varchar(36) NOT NULL,
	`identifier` varchar(190) NOT NULL,
	`value` text NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`created_at` datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	`updated_at` datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
	CONSTRAINT `verification_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `withdrawal` (
	`evidence_id` varchar(36) NOT NULL,
	`at` datetime(3) NOT NULL,
	`by` varchar(36) NOT NULL,
	CONSTRAINT `withdrawal_evidence_id` PRIMARY KEY(`evidence_id`)
);
--> statement-breakpoint
ALTER TABLE `account` ADD CONSTRAINT `account_user_id_user_id_fk` FOREIGN KEY (`user_id`) REFERENCES `user`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike` ADD CONSTRAINT `bike_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike` ADD CONSTRAINT `bike_type_id_bike_type_id_fk` FOREIGN KEY (`type_id`) REFERENCES `bike_type`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_type` ADD CONSTRAINT `bike_type_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_note` ADD CONSTRAINT `class_note_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_note` ADD CONSTRAINT `class_note_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_note` ADD CONSTRAINT `class_note_made_by_user_id_fk` FOREIGN KEY (`made_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `evidence` ADD CONSTRAINT `evidence_setup_id_setup_id_fk` FOREIGN KEY (`setup_id`) REFERENCES `setup`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `evidence` ADD CONSTRAINT `evidence_seen_by_user_id_fk` FOREIGN KEY (`seen_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `member` ADD CONSTRAINT `member_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `member` ADD CONSTRAINT `member_added_by_user_id_fk` FOREIGN KEY (`added_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `seating` ADD CONSTRAINT `seating_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `seating` ADD CONSTRAINT `seating_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `seating` ADD CONSTRAINT `seating_by_user_id_fk` FOREIGN KEY (`by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `session` ADD CONSTRAINT `session_user_id_user_id_fk` FOREIGN KEY (`user_id`) REFERENCES `user`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `setup` ADD CONSTRAINT `setup_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `setup` ADD CONSTRAINT `setup_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `setup` ADD CONSTRAINT `setup_started_by_user_id_fk` FOREIGN KEY (`started_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `setup` ADD CONSTRAINT `setup_finished_by_user_id_fk` FOREIGN KEY (`finished_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `withdrawal` ADD CONSTRAINT `withdrawal_evidence_id_evidence_id_fk` FOREIGN KEY (`evidence_id`) REFERENCES `evidence`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `withdrawal` ADD CONSTRAINT `withdrawal_by_user_id_fk` FOREIGN KEY (`by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `note_member` ON `class_note` (`member_id`,`made_at`);--> statement-breakpoint
CREATE INDEX `evidence_setup` ON `evidence` (`setup_id`,`position`);--> statement-breakpoint
CREATE INDEX `member_name` ON `member` (`studio_id`,`name`);--> statement-breakpoint
CREATE INDEX `seating_day` ON `seating` (`day`,`bike_id`);--> statement-breakpoint
CREATE INDEX `setup_member` ON `setup` (`member_id`,`started_at`);