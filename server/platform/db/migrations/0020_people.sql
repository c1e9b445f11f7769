CREATE TABLE `invitation` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`token_hash` varchar(64) NOT NULL,
	`role` enum('manager','instructor','desk') NOT NULL,
	`user_id` varchar(36),
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`used_at` datetime(3),
	`revoked_at` datetime(3),
	CONSTRAINT `invitation_id` PRIMARY KEY(`id`),
	CONSTRAINT `invitation_token_hash_unique` UNIQUE(`token_hash`)
);
--> statement-breakpoint
ALTER TABLE `user` ADD `ended_at` datetime(3);--> statement-breakpoint
ALTER TABLE `invitation` ADD CONSTRAINT `invitation_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `invitation` ADD CONSTRAINT `invitation_user_id_user_id_fk` FOREIGN KEY (`user_id`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `invitation` ADD CONSTRAINT `invitation_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `invitation_studio` ON `invitation` (`studio_id`,`expires_at`);