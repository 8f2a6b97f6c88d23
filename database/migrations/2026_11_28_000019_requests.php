<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** By which request an entry came about, as the log names it; and how long saves and decisions took, for whoever watches machines. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('entries', static function (Blueprint $table): void {
            $table->string('request', 64)->charset('ascii')->collation('ascii_bin')->nullable();
        });
        Schema::create('timings', static function (Blueprint $table): void {
            $table->string('name', 20)->charset('ascii')->collation('ascii_bin');
            $table->unsignedSmallInteger('bucket');
            $table->unsignedBigInteger('count');
            $table->double('seconds');
            $table->primary(['name', 'bucket']);
        });
    }

    public function down(): void
    {
        Schema::drop('timings');
        Schema::table('entries', static function (Blueprint $table): void {
            $table->dropColumn('request');
        });
    }
};
