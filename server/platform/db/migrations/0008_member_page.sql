CREATE TABLE `member_link` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`token_hash` varchar(64) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`revoked_at` datetime(3),
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	CONSTRAINT `member_link_id` PRIMARY KEY(`id`),
	CONSTRAINT `member_link_token_hash_unique` UNIQUE(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE `member_message` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`link_id` varchar(36),
	`kind` enum('felt','recheck','home') NOT NULL,
	`body` json NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`handled_at` datetime(3),
	`handled_by` varchar(36),
	CONSTRAINT `member_message_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `member_link` ADD CONSTRAINT `member_link_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `member_link` ADD CONSTRAINT `member_link_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `member_link` ADD CONSTRAINT `member_link_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `member_message` ADD CONSTRAINT `member_message_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `member_message` ADD CONSTRAINT `member_message_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `member_message` ADD CONSTRAINT `member_message_link_id_member_link_id_fk` FOREIGN KEY (`link_id`) REFERENCES `member_link`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `member_message` ADD CONSTRAINT `member_message_handled_by_user_id_fk` FOREIGN KEY (`handled_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `member_link_member` ON `member_link` (`member_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `member_message_member` ON `member_message` (`member_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `member_message_open` ON `member_message` (`studio_id`,`handled_at`);