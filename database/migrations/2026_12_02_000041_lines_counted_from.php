<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/**
 * From when the time of a pencilled line counts that stands in a case: when it was known that the case is the one;
 * and when what a line waits for became true.
 */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('scheduled_lines', static function (Blueprint $table): void {
            $table->dateTime('counted_at')->nullable();
            $table->dateTime('met_at')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('scheduled_lines', static function (Blueprint $table): void {
            $table->dropColumn(['counted_at', 'met_at']);
        });
    }
};
