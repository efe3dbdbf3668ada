ALTER TABLE `takes` ADD `feet` longtext;--> statement-breakpoint
ALTER TABLE `takes` ADD `releases` longtext;