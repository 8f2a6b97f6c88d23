<?php

declare(strict_types=1);

use App\Store\Types\TypeTable;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Since when each record has been at its stage, so that lists can show it and sort by it; what the history says of those there are. */
return new class extends Migration
{
    public function up(): void
    {
        foreach (DB::table('record_types')->get() as $type) {
            TypeTable::addSince(DB::connection(), $type->name);
            $fields = json_decode($type->definition, true, 64, JSON_THROW_ON_ERROR)['fields'];
            foreach (['stage', 'status'] as $field) {
                if (($fields[$field]['type'] ?? '') === 'choice') {
                    DB::statement(
                        "UPDATE `records_{$type->name}` t JOIN (SELECT h.record_id, MAX(e.at) AS at FROM field_history h
                        JOIN entries e ON e.id = h.entry_id WHERE h.record_type = ? AND h.field = ? GROUP BY h.record_id) s
                        ON s.record_id = t.id SET t._stage_since = s.at",
                        [$type->name, $field],
                    );
                    break;
                }
            }
        }
    }

    public function down(): void
    {
        foreach (DB::table('record_types')->pluck('name') as $name) {
            DB::statement("ALTER TABLE `records_{$name}` DROP INDEX IF EXISTS `_stage_since`, DROP COLUMN IF EXISTS `_stage_since`");
        }
    }
};
