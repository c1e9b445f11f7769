ALTER TABLE `invitation` MODIFY COLUMN `role` enum('manager','instructor','trainee','desk') NOT NULL;--> statement-breakpoint
ALTER TABLE `user` MODIFY COLUMN `role` enum('manager','instructor','trainee','desk') NOT NULL DEFAULT 'instructor';--> statement-breakpoint
ALTER TABLE `register_entry` ADD `awaits_confirmation` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `register_entry` ADD `confirmed_by` varchar(36);--> statement-breakpoint
ALTER TABLE `register_entry` ADD `confirmed_at` datetime(3);--> statement-breakpoint
ALTER TABLE `register_entry` ADD CONSTRAINT `register_entry_confirmed_by_user_id_fk` FOREIGN KEY (`confirmed_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `register_waiting` ON `register_entry` (`studio_id`,`awaits_confirmation`);