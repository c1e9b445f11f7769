CREATE TABLE `command_receipt` (
	`studio_id` varchar(36) NOT NULL,
	`id` varchar(36) NOT NULL,
	`name` varchar(60) NOT NULL,
	`actor` varchar(36),
	`subject` varchar(36),
	`content_hash` varchar(64) NOT NULL,
	`outcome` json NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `command_receipt_studio_id_id_pk` PRIMARY KEY(`studio_id`,`id`)
);
--> statement-breakpoint
ALTER TABLE `command_receipt` ADD CONSTRAINT `command_receipt_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `command_receipt_at` ON `command_receipt` (`at`);