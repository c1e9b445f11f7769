CREATE TABLE `consent` (
	`id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`wording_version` int NOT NULL,
	`way` enum('spoken','written','ownPage') NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36),
	`ended_at` datetime(3),
	`ended_by` varchar(36),
	CONSTRAINT `consent_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `consent_wording` (
	`studio_id` varchar(36) NOT NULL,
	`version` int NOT NULL,
	`wording` text NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` varchar(36) NOT NULL,
	CONSTRAINT `consent_wording_studio_id_version_pk` PRIMARY KEY(`studio_id`,`version`)
);
--> statement-breakpoint
ALTER TABLE `consent` ADD CONSTRAINT `consent_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `consent` ADD CONSTRAINT `consent_member_id_member_id_fk` FOREIGN KEY (`member_id`) REFERENCES `member`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `consent` ADD CONSTRAINT `consent_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `consent` ADD CONSTRAINT `consent_ended_by_user_id_fk` FOREIGN KEY (`ended_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `consent_wording` ADD CONSTRAINT `consent_wording_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `consent_wording` ADD CONSTRAINT `consent_wording_created_by_user_id_fk` FOREIGN KEY (`created_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `consent_member` ON `consent` (`member_id`,`ended_at`);--> statement-breakpoint
CREATE INDEX `consent_studio` ON `consent` (`studio_id`);--> statement-breakpoint
INSERT INTO `consent` (`id`, `studio_id`, `member_id`, `wording_version`, `way`, `created_at`, `created_by`)
SELECT UUID(), l.`studio_id`, l.`member_id`, 1, 'spoken', MIN(l.`created_at`), MIN(l.`created_by`)
FROM `rider_limit` l
WHERE NOT EXISTS (SELECT 1 FROM `consent` c WHERE c.`member_id` = l.`member_id`)
GROUP BY l.`studio_id`, l.`member_id`;
