CREATE TABLE `recordings` (
	`take_id` varchar(36) NOT NULL,
	`mime` varchar(60) NOT NULL,
	`sound` mediumblob NOT NULL,
	`expires_at` bigint NOT NULL,
	CONSTRAINT `recordings_take_id` PRIMARY KEY(`take_id`)
);
--> statement-breakpoint
ALTER TABLE `classes` ADD `on_time_ms` int;--> statement-breakpoint
ALTER TABLE `classes` ADD `borders` longtext;--> statement-breakpoint
ALTER TABLE `classes` ADD `recording_days` int;--> statement-breakpoint
ALTER TABLE `takes` ADD `free` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `takes` ADD `source` varchar(12) DEFAULT 'tap' NOT NULL;--> statement-breakpoint
ALTER TABLE `takes` ADD `corrected` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `recordings` ADD CONSTRAINT `recordings_take_id_takes_id_fk` FOREIGN KEY (`take_id`) REFERENCES `takes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `recordings_expiry` ON `recordings` (`expires_at`);