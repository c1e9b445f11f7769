CREATE TABLE `rider_file` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`hash` varchar(64) NOT NULL,
	`is_measured` boolean NOT NULL,
	`content` text NOT NULL,
	`issued_at` datetime(3) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	CONSTRAINT `rider_file_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `known_studio` (
	`studio_id` varchar(36) NOT NULL,
	`key` varchar(43) NOT NULL,
	`name` varchar(120) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	CONSTRAINT `known_studio_studio_id_key_pk` PRIMARY KEY(`studio_id`,`key`)
);
--> statement-breakpoint
CREATE TABLE `studio_key` (
	`studio_id` varchar(36) NOT NULL,
	`public_key` varchar(43) NOT NULL,
	`private_key` text NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `studio_key_studio_id_pk` PRIMARY KEY(`studio_id`)
);
--> statement-breakpoint
ALTER TABLE `register_entry` MODIFY COLUMN `source` enum('setUp','restored','translated','tape','change','imported','trial','moved','carried') NOT NULL;--> statement-breakpoint
ALTER TABLE `rider_file` ADD CONSTRAINT `rider_file_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rider_file` ADD CONSTRAINT `rider_file_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rider_file` ADD CONSTRAINT `rider_file_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `known_studio` ADD CONSTRAINT `known_studio_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `known_studio` ADD CONSTRAINT `known_studio_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `studio_key` ADD CONSTRAINT `studio_key_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `rider_file_member` ON `rider_file` (`member_id`,`issued_at`);--> statement-breakpoint
CREATE INDEX `rider_file_studio` ON `rider_file` (`studio_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `studio_key_public` ON `studio_key` (`public_key`);