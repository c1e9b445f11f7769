CREATE TABLE `rider_limit` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`kind` enum('heart','operation','pregnancy','injury','ankle','hip','legDifference','firstFoot','rides','sitsAt','touch') NOT NULL,
	`body` json NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	`ended_at` datetime(3),
	`ended_by` varchar(36),
	CONSTRAINT `rider_limit_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `rider_limit` ADD CONSTRAINT `rider_limit_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rider_limit` ADD CONSTRAINT `rider_limit_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rider_limit` ADD CONSTRAINT `rider_limit_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rider_limit` ADD CONSTRAINT `rider_limit_ended_by_user_id_fk` FOREIGN KEY (`ended_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `rider_limit_member` ON `rider_limit` (`member_id`,`ended_at`);--> statement-breakpoint
CREATE INDEX `rider_limit_studio` ON `rider_limit` (`studio_id`,`ended_at`);