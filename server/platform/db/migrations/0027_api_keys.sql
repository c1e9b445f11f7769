CREATE TABLE `api_key` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`user_id` varchar(36) NOT NULL,
	`key_hash` varchar(64) NOT NULL,
	`scope` enum('operations','desk','instructor') NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	`used_at` datetime(3),
	`revoked_at` datetime(3),
	CONSTRAINT `api_key_id` PRIMARY KEY(`id`),
	CONSTRAINT `api_key_key_hash_unique` UNIQUE(`key_hash`)
);
--> statement-breakpoint
ALTER TABLE `user` ADD `is_program` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `api_key` ADD CONSTRAINT `api_key_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `api_key` ADD CONSTRAINT `api_key_user_id_user_id_fk` FOREIGN KEY (`user_id`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `api_key` ADD CONSTRAINT `api_key_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `api_key_studio` ON `api_key` (`studio_id`,`created_at`);