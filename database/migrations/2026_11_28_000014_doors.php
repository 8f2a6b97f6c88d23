<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** How people come in: links of letters that let them choose a password, and a second factor. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('person_links', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->string('kind', 12)->charset('ascii')->collation('ascii_bin');
            $table->char('hash', 64)->charset('ascii')->collation('ascii_bin')->unique();
            $table->dateTime('expires_at');
            $table->dateTime('used_at')->nullable();
        });
        Schema::table('people', function (Blueprint $table): void {
            $table->dateTime('joined_at')->nullable()->comment('when they first chose a password; empty while they are only invited');
            $table->text('second_factor')->nullable();
            $table->unsignedBigInteger('second_factor_step')->default(0)->comment('the last taken, so that none is taken twice');
            $table->json('recovery_codes')->nullable();
        });
        Schema::table('personal_access_tokens', function (Blueprint $table): void {
            $table->dateTime('expires_at')->nullable()->change();
        });
        DB::table('people')->update(['joined_at' => gmdate('Y-m-d H:i:s')]);
    }

    public function down(): void
    {
        Schema::dropIfExists('person_links');
        Schema::table('people', static function (Blueprint $table): void {
            $table->dropColumn(['joined_at', 'second_factor', 'second_factor_step', 'recovery_codes']);
        });
    }
};
