CREATE TABLE IF NOT EXISTS `recordings` (
	`take_id` varchar(36) NOT NULL,
	`mime` varchar(60) NOT NULL,
	`sound` mediumblob NOT NULL,
	`expires_at` bigint NOT NULL,
	CONSTRAINT `recordings_take_id` PRIMARY KEY(`take_id`)
);
--> statement-breakpoint
ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `on_time_ms` int;--> statement-breakpoint
ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `borders` longtext;--> statement-breakpoint
ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `recording_days` int;--> statement-breakpoint
ALTER TABLE `takes` ADD COLUMN IF NOT EXISTS `free` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `takes` ADD COLUMN IF NOT EXISTS `source` varchar(12) DEFAULT 'tap' NOT NULL;--> statement-breakpoint
ALTER TABLE `takes` ADD COLUMN IF NOT EXISTS `corrected` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `recordings` ADD CONSTRAINT `recordings_take_id_takes_id_fk` FOREIGN KEY IF NOT EXISTS `recordings_take_id_takes_id_fk` (`take_id`) REFERENCES `takes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `recordings_expiry` ON `recordings` (`expires_at`);