<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** How far records of a type are numbered, by field and by what it counts in. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('counters', static function (Blueprint $table): void {
            $table->string('record_type', 64)->charset('ascii')->collation('ascii_bin');
            $table->string('field', 64)->charset('ascii')->collation('ascii_bin');
            $table->string('period', 60)->collation('utf8mb4_bin');
            $table->unsignedBigInteger('last');
            $table->primary(['record_type', 'field', 'period']);
        });
    }

    public function down(): void
    {
        Schema::drop('counters');
    }
};
