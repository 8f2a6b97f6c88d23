<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** By what name a calendar knows a task that came from it. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('tasks', static function (Blueprint $table): void {
            $table->char('calendar_uid', 40)->charset('ascii')->collation('ascii_bin')->nullable();
            $table->index(['assignee_id', 'calendar_uid']);
        });
    }

    public function down(): void
    {
        Schema::table('tasks', static function (Blueprint $table): void {
            $table->dropIndex(['assignee_id', 'calendar_uid']);
            $table->dropColumn('calendar_uid');
        });
    }
};
