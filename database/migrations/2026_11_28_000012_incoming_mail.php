<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Mail that came in, each once, and what is known of addresses: that letters bounce, or are not wanted. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('incoming_mails', function (Blueprint $table): void {
            $table->id();
            $table->string('message_id', 190)->unique();
            $table->dateTime('at');
            $table->string('sender', 190);
            $table->string('subject', 500);
            $table->string('kind', 12)->charset('ascii')->collation('ascii_bin');
            $table->string('record_type', 40)->charset('ascii')->collation('ascii_bin')->nullable();
            $table->unsignedBigInteger('record_id')->nullable();
            $table->unsignedBigInteger('answers_id')->nullable();
            $table->string('trouble', 500)->default('');
            $table->mediumText('text');
            $table->mediumText('raw')->charset('binary')->nullable();
            $table->index(['sender', 'at']);
            $table->index(['record_type', 'record_id']);
        });
        Schema::table('messages', function (Blueprint $table): void {
            $table->boolean('may_unsubscribe')->default(false);
        });
        Schema::create('address_marks', function (Blueprint $table): void {
            $table->id();
            $table->string('address', 190);
            $table->string('kind', 12)->charset('ascii')->collation('ascii_bin');
            $table->dateTime('at');
            $table->string('because', 500);
            $table->unique(['address', 'kind']);
        });
    }

    public function down(): void
    {
        Schema::table('messages', fn (Blueprint $table) => $table->dropColumn('may_unsubscribe'));
        Schema::dropIfExists('address_marks');
        Schema::dropIfExists('incoming_mails');
    }
};
