<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** While the house clock is turned it stands, for everybody, at the moment that the turn has come to. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('company', static function (Blueprint $table): void {
            $table->bigInteger('clock_held')->nullable()->comment('seconds since 1970');
        });
    }

    public function down(): void
    {
        Schema::table('company', static function (Blueprint $table): void {
            $table->dropColumn('clock_held');
        });
    }
};
