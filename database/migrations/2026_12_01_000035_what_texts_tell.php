<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Of which fields of which records a text tells that a rule wrote: whoever may not see those is not shown the text. */
return new class extends Migration
{
    private const TEXTS = ['tasks', 'comments', 'messages', 'sign_offs', 'slips'];

    public function up(): void
    {
        foreach (self::TEXTS as $table) {
            Schema::table($table, static function (Blueprint $table): void {
                $table->text('tells')->charset('ascii')->collation('ascii_bin')->nullable()->comment('type, id and field, a line each');
            });
        }
    }

    public function down(): void
    {
        foreach (self::TEXTS as $table) {
            Schema::table($table, static function (Blueprint $table): void {
                $table->dropColumn('tells');
            });
        }
    }
};
