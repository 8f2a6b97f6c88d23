<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What stood in a cell that is wrong, so that one answer can be given for all rows in which it stands. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('import_problems', static function (Blueprint $table): void {
            $table->string('cell', 300)->default('');
        });
    }

    public function down(): void
    {
        Schema::table('import_problems', static function (Blueprint $table): void {
            $table->dropColumn('cell');
        });
    }
};
