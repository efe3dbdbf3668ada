ALTER TABLE `classes` ADD `naming` varchar(20) DEFAULT 'quarters' NOT NULL;--> statement-breakpoint
ALTER TABLE `classes` ADD `house_words` longtext;--> statement-breakpoint
ALTER TABLE `classes` ADD `word_set` longtext;