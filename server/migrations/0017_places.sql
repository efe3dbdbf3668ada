ALTER TABLE `child_elements` ADD COLUMN IF NOT EXISTS `right_places` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `child_elements` ADD COLUMN IF NOT EXISTS `misread` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `child_elements` ADD COLUMN IF NOT EXISTS `not_told` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `child_elements` ADD COLUMN IF NOT EXISTS `known` double DEFAULT 0.5 NOT NULL;