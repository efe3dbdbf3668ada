ALTER TABLE `takes` ADD COLUMN IF NOT EXISTS `part` varchar(40);--> statement-breakpoint
ALTER TABLE `takes` ADD COLUMN IF NOT EXISTS `beside_id` varchar(36);