INSERT IGNORE INTO `studio_class` (`id`, `studio_id`, `title`, `starts_at`, `ends_at`, `source`, `open_day`, `created_at`, `created_by`)
SELECT UUID(), `studio_id`, 'Open floor', CONCAT(`day`, ' 00:00:00'), CONCAT(`day`, ' 23:59:59'), 'open', `day`, MIN(`created_at`), MIN(`created_by`)
FROM (SELECT `studio_id`, `day`, `created_at`, `created_by` FROM `bike_assignment_log`
  UNION SELECT `studio_id`, `day`, `created_at`, `created_by` FROM `bike_assignment`) `said`
GROUP BY `studio_id`, `day`;--> statement-breakpoint
UPDATE `bike_assignment` `a` JOIN `studio_class` `c` ON `c`.`studio_id` = `a`.`studio_id` AND `c`.`open_day` = `a`.`day` SET `a`.`class_id` = `c`.`id`;--> statement-breakpoint
UPDATE `bike_assignment_log` `a` JOIN `studio_class` `c` ON `c`.`studio_id` = `a`.`studio_id` AND `c`.`open_day` = `a`.`day` SET `a`.`class_id` = `c`.`id`;--> statement-breakpoint
CREATE INDEX `assignment_of_member` ON `bike_assignment` (`member_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `assignment_of_studio` ON `bike_assignment` (`studio_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `assignment_log_class` ON `bike_assignment_log` (`class_id`,`bike_id`);--> statement-breakpoint
CREATE INDEX `assignment_log_studio` ON `bike_assignment_log` (`studio_id`,`created_at`);--> statement-breakpoint
ALTER TABLE `bike_assignment` DROP INDEX `assignment_member`;--> statement-breakpoint
DROP INDEX `assignment_log_day` ON `bike_assignment_log`;--> statement-breakpoint
DROP INDEX `assignment_studio` ON `bike_assignment`;--> statement-breakpoint
ALTER TABLE `bike_assignment` DROP PRIMARY KEY;--> statement-breakpoint
ALTER TABLE `bike_assignment` MODIFY COLUMN `class_id` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `bike_assignment_log` MODIFY COLUMN `class_id` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `bike_assignment` ADD PRIMARY KEY(`class_id`,`bike_id`);--> statement-breakpoint
ALTER TABLE `bike_assignment` ADD CONSTRAINT `seat_of_member` UNIQUE(`class_id`,`member_id`);--> statement-breakpoint
ALTER TABLE `bike_assignment` DROP COLUMN `day`;--> statement-breakpoint
ALTER TABLE `bike_assignment_log` DROP COLUMN `day`;
