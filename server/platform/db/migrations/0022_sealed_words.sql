ALTER TABLE `class_follow_up` MODIFY COLUMN `said` text NOT NULL;--> statement-breakpoint
ALTER TABLE `complaint` MODIFY COLUMN `quality` text NOT NULL;--> statement-breakpoint
ALTER TABLE `complaint` MODIFY COLUMN `health` text NOT NULL;--> statement-breakpoint
ALTER TABLE `complaint` MODIFY COLUMN `line` text NOT NULL;--> statement-breakpoint
ALTER TABLE `complaint` MODIFY COLUMN `handed_to` text;--> statement-breakpoint
ALTER TABLE `trial` MODIFY COLUMN `said` text NOT NULL;--> statement-breakpoint
ALTER TABLE `trial` MODIFY COLUMN `because` text NOT NULL;--> statement-breakpoint
ALTER TABLE `trial` MODIFY COLUMN `expects` text NOT NULL;--> statement-breakpoint
ALTER TABLE `trial` MODIFY COLUMN `reason` text;--> statement-breakpoint
ALTER TABLE `member_message` MODIFY COLUMN `body` text NOT NULL;--> statement-breakpoint
ALTER TABLE `rider_limit` MODIFY COLUMN `kind` text NOT NULL;--> statement-breakpoint
ALTER TABLE `rider_limit` MODIFY COLUMN `body` text NOT NULL;--> statement-breakpoint
ALTER TABLE `rider_plan` MODIFY COLUMN `body` text NOT NULL;