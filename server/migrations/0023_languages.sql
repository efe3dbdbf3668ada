ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `language` varchar(5);--> statement-breakpoint
ALTER TABLE `teachers` ADD COLUMN IF NOT EXISTS `language` varchar(5);