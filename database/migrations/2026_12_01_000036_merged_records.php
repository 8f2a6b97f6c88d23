<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Which record another one was merged into: the account of the one that stays tells what happened to both. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('merged_records', static function (Blueprint $table): void {
            $table->string('record_type', 40)->charset('ascii')->collation('ascii_bin');
            $table->unsignedBigInteger('record_id');
            $table->unsignedBigInteger('into_id');
            $table->primary(['record_type', 'record_id']);
            $table->index(['record_type', 'into_id']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('merged_records');
    }
};
