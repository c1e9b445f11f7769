RENAME TABLE IF EXISTS `seating` TO `bike_assignment_log`;--> statement-breakpoint
RENAME TABLE IF EXISTS `sign_in_tries` TO `sign_in_attempts`;--> statement-breakpoint
ALTER TABLE `bike_type` CHANGE COLUMN IF EXISTS `sheet` `equipment` json NOT NULL, RENAME COLUMN IF EXISTS `made_at` TO `created_at`, RENAME COLUMN IF EXISTS `made_by` TO `created_by`;--> statement-breakpoint
ALTER TABLE `type_reading` RENAME COLUMN IF EXISTS `at` TO `created_at`, RENAME COLUMN IF EXISTS `by` TO `created_by`;--> statement-breakpoint
ALTER TABLE `bike` CHANGE COLUMN IF EXISTS `own` `machine_calibration` json NOT NULL, CHANGE COLUMN IF EXISTS `own_from` `machine_calibration_source` json;--> statement-breakpoint
ALTER TABLE `bike_reading` RENAME COLUMN IF EXISTS `at` TO `created_at`, RENAME COLUMN IF EXISTS `by` TO `created_by`;--> statement-breakpoint
ALTER TABLE `inspection` RENAME COLUMN IF EXISTS `at` TO `created_at`, RENAME COLUMN IF EXISTS `by` TO `created_by`;--> statement-breakpoint
ALTER TABLE `bike_fault` RENAME COLUMN IF EXISTS `cleared_at` TO `resolved_at`, RENAME COLUMN IF EXISTS `cleared_by` TO `resolved_by`;--> statement-breakpoint
ALTER TABLE `member` RENAME COLUMN IF EXISTS `added_at` TO `created_at`, RENAME COLUMN IF EXISTS `added_by` TO `created_by`;--> statement-breakpoint
ALTER TABLE `setup` CHANGE COLUMN IF EXISTS `own` `machine_calibration` json NOT NULL;--> statement-breakpoint
ALTER TABLE `evidence` RENAME COLUMN IF EXISTS `seen_at` TO `created_at`, RENAME COLUMN IF EXISTS `seen_by` TO `created_by`;--> statement-breakpoint
ALTER TABLE `withdrawal` RENAME COLUMN IF EXISTS `at` TO `created_at`, RENAME COLUMN IF EXISTS `by` TO `created_by`;--> statement-breakpoint
ALTER TABLE `bike_assignment_log` RENAME COLUMN IF EXISTS `at` TO `created_at`, RENAME COLUMN IF EXISTS `by` TO `created_by`;--> statement-breakpoint
ALTER TABLE `bike_assignment` RENAME COLUMN IF EXISTS `assigned_at` TO `created_at`, RENAME COLUMN IF EXISTS `assigned_by` TO `created_by`;--> statement-breakpoint
ALTER TABLE `class_note` RENAME COLUMN IF EXISTS `made_at` TO `created_at`, RENAME COLUMN IF EXISTS `made_by` TO `created_by`;--> statement-breakpoint
ALTER TABLE `bike_type` DROP FOREIGN KEY IF EXISTS `bike_type_made_by_user_id_fk`;--> statement-breakpoint
ALTER TABLE `bike_type` ADD CONSTRAINT `bike_type_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `type_reading` DROP FOREIGN KEY IF EXISTS `type_reading_by_user_id_fk`;--> statement-breakpoint
ALTER TABLE `type_reading` ADD CONSTRAINT `type_reading_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_reading` DROP FOREIGN KEY IF EXISTS `bike_reading_by_user_id_fk`;--> statement-breakpoint
ALTER TABLE `bike_reading` ADD CONSTRAINT `bike_reading_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `inspection` DROP FOREIGN KEY IF EXISTS `inspection_by_user_id_fk`;--> statement-breakpoint
ALTER TABLE `inspection` ADD CONSTRAINT `inspection_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_fault` DROP FOREIGN KEY IF EXISTS `bike_fault_cleared_by_user_id_fk`;--> statement-breakpoint
ALTER TABLE `bike_fault` ADD CONSTRAINT `bike_fault_resolved_by_user_id_fk` FOREIGN KEY (`resolved_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `member` DROP FOREIGN KEY IF EXISTS `member_added_by_user_id_fk`;--> statement-breakpoint
ALTER TABLE `member` ADD CONSTRAINT `member_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `evidence` DROP FOREIGN KEY IF EXISTS `evidence_seen_by_user_id_fk`;--> statement-breakpoint
ALTER TABLE `evidence` ADD CONSTRAINT `evidence_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `withdrawal` DROP FOREIGN KEY IF EXISTS `withdrawal_by_user_id_fk`;--> statement-breakpoint
ALTER TABLE `withdrawal` ADD CONSTRAINT `withdrawal_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_assignment_log` DROP FOREIGN KEY IF EXISTS `seating_by_user_id_fk`;--> statement-breakpoint
ALTER TABLE `bike_assignment_log` ADD CONSTRAINT `bike_assignment_log_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_assignment` DROP FOREIGN KEY IF EXISTS `bike_assignment_assigned_by_user_id_fk`;--> statement-breakpoint
ALTER TABLE `bike_assignment` ADD CONSTRAINT `bike_assignment_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_note` DROP FOREIGN KEY IF EXISTS `class_note_made_by_user_id_fk`;--> statement-breakpoint
ALTER TABLE `class_note` ADD CONSTRAINT `class_note_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_assignment_log` DROP FOREIGN KEY IF EXISTS `seating_bike_id_bike_id_fk`;--> statement-breakpoint
ALTER TABLE `bike_assignment_log` ADD CONSTRAINT `bike_assignment_log_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_assignment_log` DROP FOREIGN KEY IF EXISTS `seating_member_id_member_id_fk`;--> statement-breakpoint
ALTER TABLE `bike_assignment_log` ADD CONSTRAINT `bike_assignment_log_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
UPDATE `bike_reading` SET `row` = JSON_REMOVE(JSON_INSERT(`row`, '$.resetsBaseline', JSON_EXTRACT(`row`, '$.anew')), '$.anew') WHERE JSON_EXISTS(`row`, '$.anew');--> statement-breakpoint
ALTER TABLE `user` ADD COLUMN IF NOT EXISTS `studio_id` varchar(36);--> statement-breakpoint
ALTER TABLE `user` ADD COLUMN IF NOT EXISTS `role` enum('manager','instructor','desk') NOT NULL DEFAULT 'manager';--> statement-breakpoint
UPDATE `user` SET `studio_id` = (SELECT `id` FROM `studio` LIMIT 1) WHERE `studio_id` IS NULL;--> statement-breakpoint
ALTER TABLE `user` MODIFY COLUMN `role` enum('manager','instructor','desk') NOT NULL DEFAULT 'instructor';--> statement-breakpoint
ALTER TABLE `user` ADD CONSTRAINT `user_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `type_reading` ADD COLUMN IF NOT EXISTS `studio_id` varchar(36);--> statement-breakpoint
UPDATE `type_reading` JOIN `bike_type` ON `bike_type`.`id` = `type_reading`.`type_id` SET `type_reading`.`studio_id` = `bike_type`.`studio_id` WHERE `type_reading`.`studio_id` IS NULL;--> statement-breakpoint
ALTER TABLE `type_reading` MODIFY COLUMN `studio_id` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `type_reading` ADD CONSTRAINT `type_reading_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_reading` ADD COLUMN IF NOT EXISTS `studio_id` varchar(36);--> statement-breakpoint
UPDATE `bike_reading` JOIN `bike` ON `bike`.`id` = `bike_reading`.`bike_id` SET `bike_reading`.`studio_id` = `bike`.`studio_id` WHERE `bike_reading`.`studio_id` IS NULL;--> statement-breakpoint
ALTER TABLE `bike_reading` MODIFY COLUMN `studio_id` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `bike_reading` ADD CONSTRAINT `bike_reading_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `inspection` ADD COLUMN IF NOT EXISTS `studio_id` varchar(36);--> statement-breakpoint
UPDATE `inspection` JOIN `bike` ON `bike`.`id` = `inspection`.`bike_id` SET `inspection`.`studio_id` = `bike`.`studio_id` WHERE `inspection`.`studio_id` IS NULL;--> statement-breakpoint
ALTER TABLE `inspection` MODIFY COLUMN `studio_id` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `inspection` ADD CONSTRAINT `inspection_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_fault` ADD COLUMN IF NOT EXISTS `studio_id` varchar(36);--> statement-breakpoint
UPDATE `bike_fault` JOIN `bike` ON `bike`.`id` = `bike_fault`.`bike_id` SET `bike_fault`.`studio_id` = `bike`.`studio_id` WHERE `bike_fault`.`studio_id` IS NULL;--> statement-breakpoint
ALTER TABLE `bike_fault` MODIFY COLUMN `studio_id` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `bike_fault` ADD CONSTRAINT `bike_fault_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `setup` ADD COLUMN IF NOT EXISTS `studio_id` varchar(36);--> statement-breakpoint
UPDATE `setup` JOIN `member` ON `member`.`id` = `setup`.`member_id` SET `setup`.`studio_id` = `member`.`studio_id` WHERE `setup`.`studio_id` IS NULL;--> statement-breakpoint
ALTER TABLE `setup` MODIFY COLUMN `studio_id` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `setup` ADD CONSTRAINT `setup_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `evidence` ADD COLUMN IF NOT EXISTS `studio_id` varchar(36);--> statement-breakpoint
UPDATE `evidence` JOIN `setup` ON `setup`.`id` = `evidence`.`setup_id` SET `evidence`.`studio_id` = `setup`.`studio_id` WHERE `evidence`.`studio_id` IS NULL;--> statement-breakpoint
ALTER TABLE `evidence` MODIFY COLUMN `studio_id` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `evidence` ADD CONSTRAINT `evidence_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `withdrawal` ADD COLUMN IF NOT EXISTS `studio_id` varchar(36);--> statement-breakpoint
UPDATE `withdrawal` JOIN `evidence` ON `evidence`.`id` = `withdrawal`.`evidence_id` SET `withdrawal`.`studio_id` = `evidence`.`studio_id` WHERE `withdrawal`.`studio_id` IS NULL;--> statement-breakpoint
ALTER TABLE `withdrawal` MODIFY COLUMN `studio_id` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `withdrawal` ADD CONSTRAINT `withdrawal_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_assignment_log` ADD COLUMN IF NOT EXISTS `studio_id` varchar(36);--> statement-breakpoint
UPDATE `bike_assignment_log` JOIN `bike` ON `bike`.`id` = `bike_assignment_log`.`bike_id` SET `bike_assignment_log`.`studio_id` = `bike`.`studio_id` WHERE `bike_assignment_log`.`studio_id` IS NULL;--> statement-breakpoint
ALTER TABLE `bike_assignment_log` MODIFY COLUMN `studio_id` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `bike_assignment_log` ADD CONSTRAINT `bike_assignment_log_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_assignment` ADD COLUMN IF NOT EXISTS `studio_id` varchar(36);--> statement-breakpoint
UPDATE `bike_assignment` JOIN `bike` ON `bike`.`id` = `bike_assignment`.`bike_id` SET `bike_assignment`.`studio_id` = `bike`.`studio_id` WHERE `bike_assignment`.`studio_id` IS NULL;--> statement-breakpoint
ALTER TABLE `bike_assignment` MODIFY COLUMN `studio_id` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `bike_assignment` ADD CONSTRAINT `bike_assignment_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_note` ADD COLUMN IF NOT EXISTS `studio_id` varchar(36);--> statement-breakpoint
UPDATE `class_note` JOIN `member` ON `member`.`id` = `class_note`.`member_id` SET `class_note`.`studio_id` = `member`.`studio_id` WHERE `class_note`.`studio_id` IS NULL;--> statement-breakpoint
ALTER TABLE `class_note` MODIFY COLUMN `studio_id` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `class_note` ADD CONSTRAINT `class_note_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `assignment_studio` ON `bike_assignment` (`studio_id`,`day`);--> statement-breakpoint
CREATE INDEX `assignment_log_day` ON `bike_assignment_log` (`studio_id`,`day`,`bike_id`);--> statement-breakpoint
ALTER TABLE `bike_assignment_log` DROP INDEX IF EXISTS `seating_day`;--> statement-breakpoint
CREATE UNIQUE INDEX `bike_assignment_log_id_unique` ON `bike_assignment_log` (`id`);--> statement-breakpoint
ALTER TABLE `bike_assignment_log` DROP INDEX IF EXISTS `seating_id_unique`;--> statement-breakpoint
CREATE INDEX `note_created` ON `class_note` (`studio_id`,`created_at`);--> statement-breakpoint
ALTER TABLE `class_note` DROP INDEX IF EXISTS `note_made`;