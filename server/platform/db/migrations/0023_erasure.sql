CREATE TABLE `erasure` (
	`studio_id` varchar(36) NOT NULL,
	`member_id` varchar(36) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`erased_by` varchar(36),
	CONSTRAINT `erasure_studio_id_member_id_pk` PRIMARY KEY(`studio_id`,`member_id`)
);
--> statement-breakpoint
ALTER TABLE `erasure` ADD CONSTRAINT `erasure_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `erasure` ADD CONSTRAINT `erasure_erased_by_user_id_fk` FOREIGN KEY (`erased_by`) REFERENCES `user`(`id`) ON DELETE no action ON UPDATE no action;