<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Record types are made and changed while the application runs: each counts its changes, and the company counts all of them. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('record_types', static function (Blueprint $table): void {
            $table->unsignedInteger('version')->default(1);
        });
        Schema::table('company', static function (Blueprint $table): void {
            $table->unsignedInteger('schema_version')->default(0);
        });
    }

    public function down(): void
    {
        Schema::table('record_types', static function (Blueprint $table): void {
            $table->dropColumn('version');
        });
        Schema::table('company', static function (Blueprint $table): void {
            $table->dropColumn('schema_version');
        });
    }
};
