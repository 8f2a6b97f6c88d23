<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Ways to look at lists that people keep: for themselves, for their team, or for everybody. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('views', static function (Blueprint $table): void {
            $table->id();
            $table->unsignedInteger('version')->default(1);
            $table->string('record_type', 40)->charset('ascii')->collation('ascii_bin');
            $table->string('name', 60);
            $table->foreignId('owner_id')->constrained('people');
            $table->string('shared', 10)->charset('ascii')->collation('ascii_bin')->default('nobody');
            $table->string('team', 80)->nullable();
            $table->json('definition');
            $table->index(['record_type', 'owner_id']);
        });
    }

    public function down(): void
    {
        Schema::drop('views');
    }
};
