CREATE TABLE `bike_assignment` (
	`bike_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`day` varchar(10) NOT NULL,
	`assigned_at` datetime(3) NOT NULL,
	`assigned_by` varchar(36) NOT NULL,
	CONSTRAINT `bike_assignment_day_bike_id_pk` PRIMARY KEY(`day`,`bike_id`),
	CONSTRAINT `assignment_member` UNIQUE(`day`,`member_id`)
);
--> statement-breakpoint
CREATE TABLE `bike_type_line` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`name` varchar(80) NOT NULL,
	CONSTRAINT `bike_type_line_id` PRIMARY KEY(`id`),
	CONSTRAINT `bike_type_line_name` UNIQUE(`studio_id`,`name`)
);
--> statement-breakpoint
CREATE TABLE `sign_in_tries` (
	`key` varchar(255) NOT NULL,
	`points` int NOT NULL DEFAULT 0,
	`expire` bigint unsigned,
	CONSTRAINT `sign_in_tries_key` PRIMARY KEY(`key`)
);
--> statement-breakpoint
ALTER TABLE `bike` ADD `own_from` json;--> statement-breakpoint
ALTER TABLE `setup` ADD `open_key` varchar(73);--> statement-breakpoint
ALTER TABLE `setup` ADD CONSTRAINT `setup_open_key_unique` UNIQUE(`open_key`);--> statement-breakpoint
INSERT IGNORE INTO `bike_type_line` (`id`, `studio_id`, `name`)
SELECT `line_id`, `studio_id`, IF(`twin` = 1, `name`, CONCAT(LEFT(`name`, 74), ' (', `twin`, ')')) FROM (
	SELECT `t`.`line_id`, `t`.`studio_id`, TRIM(JSON_VALUE(`t`.`definition`, '$.name')) AS `name`,
		ROW_NUMBER() OVER (PARTITION BY `t`.`studio_id`, TRIM(JSON_VALUE(`t`.`definition`, '$.name')) ORDER BY `t`.`made_at`, `t`.`line_id`) AS `twin`
	FROM `bike_type` `t` WHERE `t`.`version` = (SELECT MAX(`u`.`version`) FROM `bike_type` `u` WHERE `u`.`line_id` = `t`.`line_id`)
) `latest`;--> statement-breakpoint
UPDATE `setup` SET `open_key` = CONCAT(`member_id`, '/', `bike_id`) WHERE `finished_at` IS NULL AND `id` IN (
	SELECT `id` FROM (SELECT `id`, ROW_NUMBER() OVER (PARTITION BY `member_id`, `bike_id` ORDER BY `started_at` DESC, `id`) AS `nth` FROM `setup` WHERE `finished_at` IS NULL) `open` WHERE `nth` = 1
);--> statement-breakpoint
INSERT IGNORE INTO `bike_assignment` (`bike_id`, `member_id`, `day`, `assigned_at`, `assigned_by`)
SELECT `s`.`bike_id`, `s`.`member_id`, `s`.`day`, `s`.`at`, `s`.`by` FROM `seating` `s`
WHERE `s`.`member_id` IS NOT NULL AND `s`.`position` = (SELECT MAX(`t`.`position`) FROM `seating` `t` WHERE `t`.`day` = `s`.`day` AND `t`.`bike_id` = `s`.`bike_id`)
ORDER BY `s`.`position` DESC;--> statement-breakpoint
ALTER TABLE `bike_assignment` ADD CONSTRAINT `bike_assignment_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_assignment` ADD CONSTRAINT `bike_assignment_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_assignment` ADD CONSTRAINT `bike_assignment_assigned_by_user_id_fk` FOREIGN KEY (`assigned_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_type_line` ADD CONSTRAINT `bike_type_line_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_type` ADD CONSTRAINT `bike_type_line_id_bike_type_line_id_fk` FOREIGN KEY (`line_id`) REFERENCES `bike_type_line`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `note_made` ON `class_note` (`made_at`);--> statement-breakpoint
CREATE INDEX `setup_saved` ON `setup` (`member_id`,`finished_at`);--> statement-breakpoint
CREATE INDEX `setup_bike_saved` ON `setup` (`bike_id`,`finished_at`);