CREATE TABLE `bike_care` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`bike_id` varchar(36) NOT NULL,
	`part` enum('pins','bolts','barClamp','posts','saddle','seatPost','bars','pedals','cleatPlates','straps','cranks','bearings','brake') NOT NULL,
	`deed` enum('done','replaced') NOT NULL,
	`note` varchar(300) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	`withdrawn_at` datetime(3),
	CONSTRAINT `bike_care_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `bike` ADD `care_intervals` json;--> statement-breakpoint
ALTER TABLE `studio` ADD `care_intervals` json;--> statement-breakpoint
ALTER TABLE `bike_care` ADD CONSTRAINT `bike_care_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_care` ADD CONSTRAINT `bike_care_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_care` ADD CONSTRAINT `bike_care_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `bike_care_bike` ON `bike_care` (`bike_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `bike_care_studio` ON `bike_care` (`studio_id`,`part`);