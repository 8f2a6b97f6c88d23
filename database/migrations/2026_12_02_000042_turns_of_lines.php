<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** The how-manieth time a line is done: one that repeats until something ends it has no most. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('scheduled_lines', static function (Blueprint $table): void {
            $table->unsignedInteger('turn')->default(1)->change();
        });
    }

    public function down(): void
    {
        Schema::table('scheduled_lines', static function (Blueprint $table): void {
            $table->unsignedSmallInteger('turn')->default(1)->change();
        });
    }
};
