CREATE TABLE `setup_school` (
	`position` bigint AUTO_INCREMENT NOT NULL,
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`setup_id` varchar(36) NOT NULL,
	`school` json NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	CONSTRAINT `setup_school_position` PRIMARY KEY(`position`),
	CONSTRAINT `setup_school_id_unique` UNIQUE(`id`)
);
--> statement-breakpoint
ALTER TABLE `studio` ADD `costs` json;--> statement-breakpoint
ALTER TABLE `studio` ADD `learns` boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE `setup_school` ADD CONSTRAINT `setup_school_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `setup_school` ADD CONSTRAINT `setup_school_setup_id_setup_id_fk` FOREIGN KEY (`setup_id`) REFERENCES `setup`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `setup_school` ADD CONSTRAINT `setup_school_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `setup_school_setup` ON `setup_school` (`setup_id`,`position`);--> statement-breakpoint
UPDATE `evidence` SET `row` = JSON_SET(`row`, '$.deg', 180 - JSON_VALUE(`row`, '$.deg')) WHERE JSON_VALUE(`row`, '$.kind') = 'kneeAngle' AND JSON_VALUE(`row`, '$.deg') + 0 > 90;
