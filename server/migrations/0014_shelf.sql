ALTER TABLE `patterns` ADD COLUMN IF NOT EXISTS `folder` varchar(60);--> statement-breakpoint
ALTER TABLE `patterns` ADD COLUMN IF NOT EXISTS `archived` boolean DEFAULT false NOT NULL;