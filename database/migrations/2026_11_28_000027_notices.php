<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Until when each person has seen what the bell told them. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('people', static function (Blueprint $table): void {
            $table->dateTime('notices_seen_at')->nullable();
        });
        Schema::table('tasks', static function (Blueprint $table): void {
            $table->index(['assignee_id', 'given_at']);
        });
    }

    public function down(): void
    {
        Schema::table('tasks', static function (Blueprint $table): void {
            $table->dropIndex(['assignee_id', 'given_at']);
        });
        Schema::table('people', static function (Blueprint $table): void {
            $table->dropColumn('notices_seen_at');
        });
    }
};
