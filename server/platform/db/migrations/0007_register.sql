CREATE TABLE `member_word` (
	`studio_id` varchar(36) NOT NULL,
	`word` varchar(120) NOT NULL,
	`name` varchar(120) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	CONSTRAINT `member_word_studio_id_word_name_member_id_pk` PRIMARY KEY(`studio_id`,`word`,`name`,`member_id`)
);
--> statement-breakpoint
CREATE TABLE `register_current` (
	`member_id` varchar(36) NOT NULL,
	`line_id` varchar(36) NOT NULL,
	`purpose` enum('usual','upright','starter','road') NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`entry_id` varchar(36) NOT NULL,
	CONSTRAINT `register_current_member_id_line_id_purpose_pk` PRIMARY KEY(`member_id`,`line_id`,`purpose`)
);
--> statement-breakpoint
CREATE TABLE `register_entry` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`line_id` varchar(36) NOT NULL,
	`type_id` varchar(36) NOT NULL,
	`purpose` enum('usual','upright','starter','road') NOT NULL,
	`source` enum('setUp','restored','translated','tape','change','imported') NOT NULL,
	`certainty` enum('told','translated','landmark','checked','measured') NOT NULL,
	`marks` json NOT NULL,
	`bike_id` varchar(36),
	`machine_calibration` json,
	`sole_mm` double,
	`pedal` enum('cage','cleat'),
	`meant` varchar(20),
	`basis` json NOT NULL,
	`setup_id` varchar(36),
	`from_id` varchar(36),
	`since_at` datetime(3) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	CONSTRAINT `register_entry_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `member` ADD `latest_entry_id` varchar(36);--> statement-breakpoint
ALTER TABLE `member_word` ADD CONSTRAINT `member_word_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `member_word` ADD CONSTRAINT `member_word_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `register_current` ADD CONSTRAINT `register_current_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `register_current` ADD CONSTRAINT `register_current_line_id_bike_type_line_id_fk` FOREIGN KEY (`line_id`) REFERENCES `bike_type_line`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `register_current` ADD CONSTRAINT `register_current_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `register_current` ADD CONSTRAINT `register_current_entry_id_register_entry_id_fk` FOREIGN KEY (`entry_id`) REFERENCES `register_entry`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `register_entry` ADD CONSTRAINT `register_entry_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `register_entry` ADD CONSTRAINT `register_entry_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `register_entry` ADD CONSTRAINT `register_entry_line_id_bike_type_line_id_fk` FOREIGN KEY (`line_id`) REFERENCES `bike_type_line`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `register_entry` ADD CONSTRAINT `register_entry_type_id_bike_type_id_fk` FOREIGN KEY (`type_id`) REFERENCES `bike_type`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `register_entry` ADD CONSTRAINT `register_entry_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `register_entry` ADD CONSTRAINT `register_entry_setup_id_setup_id_fk` FOREIGN KEY (`setup_id`) REFERENCES `setup`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `register_entry` ADD CONSTRAINT `register_entry_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `member_word_member` ON `member_word` (`member_id`);--> statement-breakpoint
CREATE INDEX `register_member` ON `register_entry` (`member_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `register_set` ON `register_entry` (`member_id`,`line_id`,`purpose`,`created_at`);--> statement-breakpoint
CREATE INDEX `register_studio` ON `register_entry` (`studio_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `member_numbers` ON `member` (`studio_id`,`latest_entry_id`,`name`);--> statement-breakpoint
INSERT IGNORE INTO `member_word` (`studio_id`, `word`, `name`, `member_id`)
SELECT `m`.`studio_id`, SUBSTRING_INDEX(SUBSTRING_INDEX(`m`.`spaced`, ' ', `n`.`i`), ' ', -1), `m`.`name`, `m`.`id`
FROM (SELECT `id`, `studio_id`, `name`, REPLACE(REPLACE(REPLACE(`name`, '-', ' '), '''', ' '), '’', ' ') AS `spaced` FROM `member`) `m`
JOIN (SELECT 1 AS `i` UNION SELECT 2 UNION SELECT 3 UNION SELECT 4 UNION SELECT 5 UNION SELECT 6 UNION SELECT 7 UNION SELECT 8 UNION SELECT 9 UNION SELECT 10 UNION SELECT 11 UNION SELECT 12) `n`
ON `n`.`i` <= 1 + LENGTH(`m`.`spaced`) - LENGTH(REPLACE(`m`.`spaced`, ' ', ''))
WHERE SUBSTRING_INDEX(SUBSTRING_INDEX(`m`.`spaced`, ' ', `n`.`i`), ' ', -1) <> '';--> statement-breakpoint
INSERT IGNORE INTO `register_entry` (`id`, `studio_id`, `member_id`, `line_id`, `type_id`, `purpose`, `source`, `certainty`, `marks`, `bike_id`, `machine_calibration`, `sole_mm`, `pedal`, `meant`, `basis`, `setup_id`, `since_at`, `created_at`, `created_by`)
SELECT `s`.`id`, `s`.`studio_id`, `s`.`member_id`, `t`.`line_id`, `s`.`type_id`, 'usual', 'setUp',
  CASE WHEN `seen`.`kinds` LIKE '%kneeAngle%' THEN 'measured'
    WHEN `seen`.`kinds` REGEXP 'footPitch|heelCheck|kneeByEye|plumb|plumbByEye|rocking' THEN 'checked'
    WHEN `seen`.`kinds` REGEXP 'inseam|landmarkAtMark|landmarkHeight|segment|stature' THEN 'landmark' ELSE 'told' END,
  JSON_EXTRACT(`e`.`row`, '$.at'), `s`.`bike_id`, `s`.`machine_calibration`,
  JSON_VALUE(`r`.`row`, '$.soleMm'), JSON_VALUE(`r`.`row`, '$.pedal'), JSON_VALUE(`e`.`row`, '$.meant'), '{}', `s`.`id`,
  `s`.`finished_at`, `s`.`finished_at`, `s`.`finished_by`
FROM `setup` `s`
JOIN `evidence` `e` ON `e`.`id` = `s`.`numbers_id`
JOIN `bike_type` `t` ON `t`.`id` = `s`.`type_id`
LEFT JOIN (SELECT `v`.`setup_id`, GROUP_CONCAT(DISTINCT JSON_VALUE(`v`.`row`, '$.kind')) AS `kinds`,
    MAX(CASE WHEN JSON_VALUE(`v`.`row`, '$.kind') = 'rider' THEN `v`.`position` END) AS `rider_position`
  FROM `evidence` `v` LEFT JOIN `withdrawal` `w` ON `w`.`evidence_id` = `v`.`id` WHERE `w`.`evidence_id` IS NULL
  GROUP BY `v`.`setup_id`) `seen` ON `seen`.`setup_id` = `s`.`id`
LEFT JOIN `evidence` `r` ON `r`.`position` = `seen`.`rider_position`
WHERE `s`.`finished_at` IS NOT NULL AND JSON_EXTRACT(`e`.`row`, '$.at') IS NOT NULL;--> statement-breakpoint
INSERT IGNORE INTO `register_current` (`member_id`, `line_id`, `purpose`, `studio_id`, `entry_id`)
SELECT `member_id`, `line_id`, `purpose`, `studio_id`, `id` FROM `register_entry` ORDER BY `created_at` DESC, `id` DESC;--> statement-breakpoint
UPDATE `member` SET `latest_entry_id` = (
  SELECT `e`.`id` FROM `register_entry` `e` WHERE `e`.`member_id` = `member`.`id` ORDER BY `e`.`created_at` DESC, `e`.`id` DESC LIMIT 1
);
