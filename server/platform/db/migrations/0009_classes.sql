CREATE TABLE `bike_place` (
	`bike_id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`room_id` varchar(36) NOT NULL,
	`x_m` double NOT NULL,
	`y_m` double NOT NULL,
	`heading_deg` double NOT NULL,
	CONSTRAINT `bike_place_bike_id` PRIMARY KEY(`bike_id`)
);
--> statement-breakpoint
CREATE TABLE `room` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`name` varchar(80) NOT NULL,
	`plan` json NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `room_id` PRIMARY KEY(`id`),
	CONSTRAINT `room_name` UNIQUE(`studio_id`,`name`)
);
--> statement-breakpoint
CREATE TABLE `studio_class` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`room_id` varchar(36),
	`title` varchar(120) NOT NULL,
	`starts_at` datetime(3) NOT NULL,
	`ends_at` datetime(3) NOT NULL,
	`source` enum('hand','calendar','list','booking','open') NOT NULL,
	`uid` varchar(190),
	`occurrence` varchar(40),
	`open_day` varchar(10),
	`hands` int NOT NULL DEFAULT 1,
	`doors_min` int NOT NULL DEFAULT 20,
	`blocks` json,
	`cancelled_at` datetime(3),
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36),
	CONSTRAINT `studio_class_id` PRIMARY KEY(`id`),
	CONSTRAINT `class_source` UNIQUE(`studio_id`,`uid`,`occurrence`),
	CONSTRAINT `class_open_day` UNIQUE(`studio_id`,`open_day`)
);
--> statement-breakpoint
CREATE TABLE `class_cue` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`class_id` varchar(36) NOT NULL,
	`sign` varchar(40) NOT NULL,
	`cue` varchar(200) NOT NULL,
	`concerned` json NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	CONSTRAINT `class_cue_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `class_look` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`class_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`bike_id` varchar(36) NOT NULL,
	`numbers` boolean NOT NULL DEFAULT false,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	CONSTRAINT `class_look_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `class_rider` (
	`class_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`state` enum('booked','here','cancelled') NOT NULL,
	`comes_min_before` int NOT NULL,
	`row_wish` enum('front','back'),
	`pinned_bike_id` varchar(36),
	`warm_up` boolean NOT NULL DEFAULT false,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36),
	CONSTRAINT `class_rider_class_id_member_id_pk` PRIMARY KEY(`class_id`,`member_id`)
);
--> statement-breakpoint
CREATE TABLE `studio_cue` (
	`studio_id` varchar(36) NOT NULL,
	`sign` varchar(40) NOT NULL,
	`cue` text NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	CONSTRAINT `studio_cue_studio_id_sign_pk` PRIMARY KEY(`studio_id`,`sign`)
);
--> statement-breakpoint
ALTER TABLE `bike_assignment` ADD `class_id` varchar(36);--> statement-breakpoint
ALTER TABLE `bike_assignment_log` ADD `class_id` varchar(36);--> statement-breakpoint
ALTER TABLE `class_note` ADD `class_id` varchar(36);--> statement-breakpoint
ALTER TABLE `class_note` ADD `strength` enum('slight','clear');--> statement-breakpoint
ALTER TABLE `class_note` ADD `score` int;--> statement-breakpoint
ALTER TABLE `class_note` ADD `minute` int;--> statement-breakpoint
ALTER TABLE `class_note` ADD `posture` enum('seated','standing');--> statement-breakpoint
ALTER TABLE `class_note` ADD `cued` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `class_note` ADD `held` boolean;--> statement-breakpoint
ALTER TABLE `class_note` ADD `held_at` datetime(3);--> statement-breakpoint
ALTER TABLE `bike_place` ADD CONSTRAINT `bike_place_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_place` ADD CONSTRAINT `bike_place_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_place` ADD CONSTRAINT `bike_place_room_id_room_id_fk` FOREIGN KEY (`room_id`) REFERENCES `room`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `room` ADD CONSTRAINT `room_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `studio_class` ADD CONSTRAINT `studio_class_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `studio_class` ADD CONSTRAINT `studio_class_room_id_room_id_fk` FOREIGN KEY (`room_id`) REFERENCES `room`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `studio_class` ADD CONSTRAINT `studio_class_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_cue` ADD CONSTRAINT `class_cue_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_cue` ADD CONSTRAINT `class_cue_class_id_studio_class_id_fk` FOREIGN KEY (`class_id`) REFERENCES `studio_class`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_cue` ADD CONSTRAINT `class_cue_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_look` ADD CONSTRAINT `class_look_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_look` ADD CONSTRAINT `class_look_class_id_studio_class_id_fk` FOREIGN KEY (`class_id`) REFERENCES `studio_class`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_look` ADD CONSTRAINT `class_look_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_look` ADD CONSTRAINT `class_look_bike_id_bike_id_fk` FOREIGN KEY (`bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_look` ADD CONSTRAINT `class_look_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_rider` ADD CONSTRAINT `class_rider_class_id_studio_class_id_fk` FOREIGN KEY (`class_id`) REFERENCES `studio_class`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_rider` ADD CONSTRAINT `class_rider_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_rider` ADD CONSTRAINT `class_rider_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_rider` ADD CONSTRAINT `class_rider_pinned_bike_id_bike_id_fk` FOREIGN KEY (`pinned_bike_id`) REFERENCES `bike`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_rider` ADD CONSTRAINT `class_rider_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `studio_cue` ADD CONSTRAINT `studio_cue_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `studio_cue` ADD CONSTRAINT `studio_cue_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `bike_place_room` ON `bike_place` (`room_id`);--> statement-breakpoint
CREATE INDEX `class_start` ON `studio_class` (`studio_id`,`starts_at`);--> statement-breakpoint
CREATE INDEX `class_cue_class` ON `class_cue` (`class_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `class_cue_studio` ON `class_cue` (`studio_id`);--> statement-breakpoint
CREATE INDEX `class_look_class` ON `class_look` (`class_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `class_look_studio` ON `class_look` (`studio_id`);--> statement-breakpoint
CREATE INDEX `class_rider_member` ON `class_rider` (`member_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `class_rider_studio` ON `class_rider` (`studio_id`);--> statement-breakpoint
ALTER TABLE `bike_assignment` ADD CONSTRAINT `bike_assignment_class_id_studio_class_id_fk` FOREIGN KEY (`class_id`) REFERENCES `studio_class`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bike_assignment_log` ADD CONSTRAINT `bike_assignment_log_class_id_studio_class_id_fk` FOREIGN KEY (`class_id`) REFERENCES `studio_class`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_note` ADD CONSTRAINT `class_note_class_id_studio_class_id_fk` FOREIGN KEY (`class_id`) REFERENCES `studio_class`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `note_class` ON `class_note` (`class_id`,`created_at`);