ALTER TABLE `member` ADD `latest_setup_id` varchar(36);--> statement-breakpoint
CREATE INDEX `member_latest` ON `member` (`studio_id`,`latest_setup_id`,`name`);--> statement-breakpoint
UPDATE `member` SET `latest_setup_id` = (
	SELECT `s`.`id` FROM `setup` `s` WHERE `s`.`member_id` = `member`.`id` AND `s`.`finished_at` IS NOT NULL ORDER BY `s`.`finished_at` DESC, `s`.`id` DESC LIMIT 1
);
