ALTER TABLE `children` ADD COLUMN IF NOT EXISTS `report_line` varchar(400) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `scale` longtext;--> statement-breakpoint
ALTER TABLE `paper_columns` ADD COLUMN IF NOT EXISTS `scale` longtext;--> statement-breakpoint
ALTER TABLE `takes` ADD COLUMN IF NOT EXISTS `given_mark` longtext;--> statement-breakpoint
ALTER TABLE `terms` ADD COLUMN IF NOT EXISTS `scale` longtext;