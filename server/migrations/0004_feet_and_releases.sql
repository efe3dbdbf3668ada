ALTER TABLE `takes` ADD COLUMN IF NOT EXISTS `feet` longtext;--> statement-breakpoint
ALTER TABLE `takes` ADD COLUMN IF NOT EXISTS `releases` longtext;