<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Hooks to which other systems post, and what arrived at them. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('hooks', function (Blueprint $table): void {
            $table->id();
            $table->string('name', 60)->unique();
            $table->unsignedInteger('version')->default(1);
            $table->char('key', 32)->charset('ascii')->collation('ascii_bin')->unique();
            $table->text('secret');
            $table->string('record_type', 40)->charset('ascii')->collation('ascii_bin');
            $table->json('takes');
            $table->json('starts');
            $table->string('known_by', 60)->nullable();
            $table->boolean('may_create')->default(true);
            $table->boolean('is_open')->default(true);
            $table->unsignedInteger('turned_away')->default(0);
            $table->dateTime('turned_away_at')->nullable();
        });
        Schema::create('hook_arrivals', function (Blueprint $table): void {
            $table->id();
            $table->unsignedBigInteger('hook_id');
            $table->string('key', 190)->charset('utf8mb4')->collation('utf8mb4_bin');
            $table->dateTime('at');
            $table->string('outcome', 12)->charset('ascii')->collation('ascii_bin');
            $table->string('record_type', 40)->charset('ascii')->collation('ascii_bin');
            $table->unsignedBigInteger('record_id')->nullable();
            $table->unsignedInteger('times')->default(1);
            $table->string('trouble', 500)->default('');
            $table->mediumText('raw');
            $table->unique(['hook_id', 'key']);
            $table->index(['hook_id', 'outcome']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('hook_arrivals');
        Schema::dropIfExists('hooks');
    }
};
