<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** In which language each person reads the application. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('people', static function (Blueprint $table): void {
            $table->string('language', 5)->charset('ascii')->collation('ascii_bin')->nullable()->comment('null: that of their browser');
        });
    }

    public function down(): void
    {
        Schema::table('people', static function (Blueprint $table): void {
            $table->dropColumn('language');
        });
    }
};
