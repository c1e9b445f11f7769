CREATE TABLE `passkey` (
	`id` varchar(36) NOT NULL,
	`name` varchar(120),
	`public_key` text NOT NULL,
	`user_id` varchar(36) NOT NULL,
	`credential_id` varchar(512) NOT NULL,
	`counter` int NOT NULL,
	`device_type` varchar(32) NOT NULL,
	`backed_up` boolean NOT NULL,
	`transports` varchar(190),
	`created_at` datetime(3),
	`aaguid` varchar(36),
	CONSTRAINT `passkey_id` PRIMARY KEY(`id`),
	CONSTRAINT `passkey_credential_id_unique` UNIQUE(`credential_id`)
);
--> statement-breakpoint
CREATE TABLE `tablet` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`name` varchar(60) NOT NULL,
	`room_id` varchar(36),
	`token_hash` varchar(64) NOT NULL,
	`idle_minutes` int NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	`used_at` datetime(3),
	`ended_at` datetime(3),
	CONSTRAINT `tablet_id` PRIMARY KEY(`id`),
	CONSTRAINT `tablet_token_hash_unique` UNIQUE(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE `user_secret` (
	`user_id` varchar(36) NOT NULL,
	`device_key` varchar(44),
	`pin_hash` text,
	CONSTRAINT `user_secret_user_id` PRIMARY KEY(`user_id`)
);
--> statement-breakpoint
ALTER TABLE `session` ADD `tablet_id` varchar(36);--> statement-breakpoint
ALTER TABLE `session` ADD `touched_at` datetime(3);--> statement-breakpoint
ALTER TABLE `session` ADD `idle_minutes` int;--> statement-breakpoint
ALTER TABLE `passkey` ADD CONSTRAINT `passkey_user_id_user_id_fk` FOREIGN KEY (`user_id`) REFERENCES `user`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `tablet` ADD CONSTRAINT `tablet_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `tablet` ADD CONSTRAINT `tablet_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `user_secret` ADD CONSTRAINT `user_secret_user_id_user_id_fk` FOREIGN KEY (`user_id`) REFERENCES `user`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `tablet_studio` ON `tablet` (`studio_id`,`ended_at`);