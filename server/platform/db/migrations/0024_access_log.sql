CREATE TABLE `access_chain` (
	`studio_id` varchar(36) NOT NULL,
	`link` bigint NOT NULL,
	`log_position` bigint NOT NULL,
	`hash` varchar(64) NOT NULL,
	CONSTRAINT `access_chain_studio_id_link_pk` PRIMARY KEY(`studio_id`,`link`),
	CONSTRAINT `access_chain_log_position_unique` UNIQUE(`log_position`)
);
--> statement-breakpoint
CREATE TABLE `access_log` (
	`position` bigint AUTO_INCREMENT NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`at` datetime(3) NOT NULL,
	`actor` varchar(36),
	`kind` enum('saw','changed','rights') NOT NULL,
	`what` varchar(60) NOT NULL,
	`subject` varchar(36),
	`command_id` varchar(36),
	CONSTRAINT `access_log_position` PRIMARY KEY(`position`),
	CONSTRAINT `access_command` UNIQUE(`studio_id`,`command_id`)
);
--> statement-breakpoint
ALTER TABLE `access_chain` ADD CONSTRAINT `access_chain_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `access_log` ADD CONSTRAINT `access_log_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `access_at` ON `access_log` (`studio_id`,`at`);--> statement-breakpoint
CREATE INDEX `access_subject` ON `access_log` (`studio_id`,`subject`,`position`);--> statement-breakpoint
CREATE INDEX `access_actor` ON `access_log` (`studio_id`,`actor`,`position`);