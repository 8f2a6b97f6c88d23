<?php

declare(strict_types=1);

use App\Store\Ledger\OneWay;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Company, people, sign-in and metadata. The tables of the record types are made from the metadata (Store\TypeTable). */
return new class extends OneWay
{
    public function up(): void
    {
        Schema::create('people', function (Blueprint $table): void {
            $table->id();
            $table->string('handle', 64)->charset('ascii')->collation('ascii_bin')->unique();
            $table->string('name', 120);
            $table->string('email', 190)->unique();
            $table->string('password');
            $table->string('role', 16);
            $table->string('team', 80);
            $table->string('time_zone', 64);
            $table->foreignId('manager_id')->nullable()->constrained('people');
            $table->boolean('active')->default(true);
            $table->rememberToken();
        });
        Schema::create('company', function (Blueprint $table): void {
            $table->unsignedTinyInteger('id')->primary();
            $table->string('name', 120);
            $table->string('time_zone', 64);
            $table->foreignId('fallback_person_id')->nullable()->constrained('people');
            $table->bigInteger('clock_offset')->default(0)->comment('seconds the house clock is ahead of the system');
        });
        Schema::create('record_types', function (Blueprint $table): void {
            $table->string('name', 40)->charset('ascii')->collation('ascii_bin')->primary();
            $table->unsignedSmallInteger('position');
            $table->json('definition');
        });
        Schema::create('sessions', function (Blueprint $table): void {
            $table->string('id')->primary();
            $table->foreignId('user_id')->nullable()->index();
            $table->string('ip_address', 45)->nullable();
            $table->text('user_agent')->nullable();
            $table->longText('payload');
            $table->integer('last_activity')->index();
        });
        Schema::create('personal_access_tokens', function (Blueprint $table): void {
            $table->id();
            $table->morphs('tokenable');
            $table->string('name', 80);
            $table->string('token', 64)->unique();
            $table->text('abilities')->nullable();
            $table->timestamp('last_used_at')->nullable();
            $table->timestamp('expires_at')->nullable()->index();
            $table->timestamps();
        });
        Schema::create('cache', function (Blueprint $table): void {
            $table->string('key')->primary();
            $table->mediumText('value');
            $table->integer('expiration')->index();
        });
        Schema::create('cache_locks', function (Blueprint $table): void {
            $table->string('key')->primary();
            $table->string('owner');
            $table->integer('expiration')->index();
        });
        Schema::create('heartbeats', function (Blueprint $table): void {
            $table->string('process', 120)->primary();
            $table->string('kind', 20);
            $table->dateTime('started_at');
            $table->dateTime('beat_at');
            $table->unsignedBigInteger('done')->default(0);
        });
    }
};
