CREATE TABLE `feed_read` (
	`studio_id` varchar(36) NOT NULL,
	`feed` enum('booking','calendar') NOT NULL,
	`address` varchar(64) NOT NULL,
	`unfinished` int NOT NULL,
	`begun_at` datetime(3) NOT NULL,
	CONSTRAINT `feed_read_studio_id_feed_pk` PRIMARY KEY(`studio_id`,`feed`)
);
--> statement-breakpoint
CREATE TABLE `lease` (
	`studio_id` varchar(36) NOT NULL,
	`name` varchar(40) NOT NULL,
	`holder` varchar(36) NOT NULL,
	`until` datetime(3) NOT NULL,
	CONSTRAINT `lease_studio_id_name_pk` PRIMARY KEY(`studio_id`,`name`)
);
--> statement-breakpoint
ALTER TABLE `member_link` ADD `opens` enum('everything','numbers') DEFAULT 'everything' NOT NULL;--> statement-breakpoint
ALTER TABLE `feed_read` ADD CONSTRAINT `feed_read_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `lease` ADD CONSTRAINT `lease_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- A link opens no more than who made it may see; running it twice changes nothing.
UPDATE `member_link` AS l JOIN `user` AS u ON u.`id` = l.`created_by` SET l.`opens` = 'numbers' WHERE u.`role` = 'desk';