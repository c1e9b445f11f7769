CREATE TABLE `bike_fault` (
	`id` varchar(36) NOT NULL,
	`bike_id` varchar(36) NOT NULL,
	`item` varchar(30) NOT NULL,
	`note` varchar(300) NOT NULL,
	`found_at` datetime(3) NOT NULL,
	`found_by` varchar(36) NOT NULL,
	`cleared_at` datetime(3),
	`cleared_by` varchar(36),
	CONSTRAINT `bike_fault_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `bike_reading` (
	`position` bigint AUTO_INCREMENT NOT NULL,
	`id` varchar(36) NOT NULL,
	`bike_id` varchar(36) NOT NULL,
	`row` json NOT NULL,
	`at` datetime(3) NOT NULL,
	`by` varchar(36) NOT NULL,
	`withdrawn_at` datetime(3),
	CONSTRAINT `bike_reading_position` PRIMARY KEY(`position`),
	CONSTRAINT `bike_reading_id_unique` UNIQUE(`id`)
);
--> statement-breakpoint
CREATE TABLE `inspection` (
	`id` varchar(36) NOT NULL,
	`bike_id` varchar(36) NOT NULL,
	`good` json NOT NULL,
	`at` datetime(3) NOT NULL,
	`by` varchar(36) NOT NULL,
	CONSTRAINT `inspection_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `type_reading` (
	`position` bigint AUTO_INCREMENT NOT NULL,
	`id` varchar(36) NOT NULL,
	`type_id` varchar(36) NOT NULL,
	`row` json NOT NULL,
	`at` datetime(3) NOT NULL,
	`by` varchar(36) NOT NULL,
	`withdrawn_at` datetime(3),
	CONSTRAINT `type_reading_position` PRIMARY KEY(`position`),
	CONSTRAINT `type_reading_id_unique` UNIQUE(`id`)
);
--> statement-breakpoint
-- Types become lines of versions: what was there is the first version of its own line, and set-ups keep the one they were made on.
ALTER TABLE `bike_type` ADD `line_id` varchar(36), ADD `version` int, ADD `sheet` json, ADD `calibration` json, ADD `made_at` datetime(3), ADD `made_by` varchar(36);--> statement-breakpoint
UPDATE `bike_type` SET `line_id` = `id`, `version` = 1, `made_at` = CURRENT_TIMESTAMP(3), `sheet` = '{"closing":{"seatHeight":"pin","seatSlide":"knob","barHeight":"pin","barSlide":"knob"},"pedalSides":["cage","cleat"],"pedalSpacingMm":165,"stop":"push","landmarks":["hipCrest","frontHipBone","between"]}';--> statement-breakpoint
ALTER TABLE `bike_type` MODIFY `line_id` varchar(36) NOT NULL, MODIFY `version` int NOT NULL, MODIFY `sheet` json NOT NULL, MODIFY `made_at` datetime(3) NOT NULL;--> statement-breakpoint
ALTER TABLE `setup` ADD `type_id` varchar(36), ADD `own` json;--> statement-breakpoint
UPDATE `setup` JOIN `bike` ON `bike`.`id` = `setup`.`bike_id` SET `setup`.`type_id` = `bike`.`type_id`, `setup`.`own` = `bike`.`own`;--> statement-breakpoint
ALTER TABLE `setup` MODIFY `type_id` varchar(36) NOT NULL, MODIFY `own` json NOT NULL;--> statement-breakpoint
ALTER TABLE `bike_type` ADD CONSTRAINT `bike_type_version` UNIQUE(`line_id`,`version`);--> statement-breakpoint
ALTER TABLE `bike_fault` ADD CONSTRAINT `bike_fault_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_fault` ADD CONSTRAINT `bike_fault_found_by_user_id_fk` FOREIGN KEY (`found_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_fault` ADD CONSTRAINT `bike_fault_cleared_by_user_id_fk` FOREIGN KEY (`cleared_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_reading` ADD CONSTRAINT `bike_reading_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_reading` ADD CONSTRAINT `bike_reading_by_user_id_fk` FOREIGN KEY (`by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `inspection` ADD CONSTRAINT `inspection_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `inspection` ADD CONSTRAINT `inspection_by_user_id_fk` FOREIGN KEY (`by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `type_reading` ADD CONSTRAINT `type_reading_type_id_bike_type_id_fk` FOREIGN KEY (`type_id`) REFERENCES `bike_type`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `type_reading` ADD CONSTRAINT `type_reading_by_user_id_fk` FOREIGN KEY (`by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `bike_fault_bike` ON `bike_fault` (`bike_id`,`found_at`);--> statement-breakpoint
CREATE INDEX `bike_reading_bike` ON `bike_reading` (`bike_id`,`position`);--> statement-breakpoint
CREATE INDEX `inspection_bike` ON `inspection` (`bike_id`,`at`);--> statement-breakpoint
CREATE INDEX `type_reading_type` ON `type_reading` (`type_id`,`position`);--> statement-breakpoint
ALTER TABLE `bike_type` ADD CONSTRAINT `bike_type_made_by_user_id_fk` FOREIGN KEY (`made_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `setup` ADD CONSTRAINT `setup_type_id_bike_type_id_fk` FOREIGN KEY (`type_id`) REFERENCES `bike_type`(`id`) ON DELETE no action ON UPDATE no action;