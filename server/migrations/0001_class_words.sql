ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `naming` varchar(20) DEFAULT 'quarters' NOT NULL;--> statement-breakpoint
ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `house_words` longtext;--> statement-breakpoint
ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `word_set` longtext;