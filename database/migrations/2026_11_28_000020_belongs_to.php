<?php

declare(strict_types=1);

use App\Store\Types\TypeTable;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** Whose each record is, its owner's or else its maker's: kept by the database itself, so that a list of somebody's is one look-up. */
return new class extends Migration
{
    public function up(): void
    {
        foreach (DB::table('record_types')->get() as $type) {
            $definition = json_decode($type->definition, true, 64, JSON_THROW_ON_ERROR);
            TypeTable::addBelonging(DB::connection(), $type->name, $definition['owner']);
        }
    }

    public function down(): void
    {
        foreach (DB::table('record_types')->pluck('name') as $name) {
            DB::statement("ALTER TABLE `records_{$name}` DROP INDEX IF EXISTS `belongs_to`, DROP COLUMN IF EXISTS `belongs_to`");
        }
    }
};
