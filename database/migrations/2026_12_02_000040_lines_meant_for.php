<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What the timing of a pencilled line said, where quiet hours have put it off: so that the line can say why it comes when it does. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('scheduled_lines', static function (Blueprint $table): void {
            $table->dateTime('meant_at')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('scheduled_lines', static function (Blueprint $table): void {
            $table->dropColumn('meant_at');
        });
    }
};
