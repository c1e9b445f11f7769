CREATE TABLE `class_sheet_print` (
	`class_id` varchar(36) NOT NULL,
	`studio_id` varchar(36) NOT NULL,
	`digest` varchar(64) NOT NULL,
	`printed_at` datetime(3) NOT NULL,
	CONSTRAINT `class_sheet_print_class_id` PRIMARY KEY(`class_id`)
);
--> statement-breakpoint
ALTER TABLE `class_sheet_print` ADD CONSTRAINT `class_sheet_print_class_id_studio_class_id_fk` FOREIGN KEY (`class_id`) REFERENCES `studio_class`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_sheet_print` ADD CONSTRAINT `class_sheet_print_studio_id_studio_id_fk` FOREIGN KEY (`studio_id`) REFERENCES `studio`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `class_sheet_print_studio` ON `class_sheet_print` (`studio_id`);