<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** A chain of hashes over the ledger: whoever changes, removes or slips in an entry breaks it. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('entry_seals', static function (Blueprint $table): void {
            $table->unsignedBigInteger('entry_id')->primary();
            $table->binary('hash', 32, fixed: true);
        });
        Schema::table('company', static function (Blueprint $table): void {
            $table->unsignedBigInteger('sealing_upto')->default(0);
            $table->dateTime('sealing_since')->nullable();
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('entry_seals');
        Schema::table('company', static function (Blueprint $table): void {
            $table->dropColumn(['sealing_upto', 'sealing_since']);
        });
    }
};
