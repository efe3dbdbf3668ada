ALTER TABLE `line_up_turns` ADD `slower` double;--> statement-breakpoint
ALTER TABLE `line_up_turns` ADD `clash` longtext;