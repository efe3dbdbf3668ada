ALTER TABLE `line_up_turns` ADD COLUMN IF NOT EXISTS `slower` double;--> statement-breakpoint
ALTER TABLE `line_up_turns` ADD COLUMN IF NOT EXISTS `clash` longtext;