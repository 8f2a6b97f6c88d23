<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Endpoints of other systems, and the calls on their way to them. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('endpoints', function (Blueprint $table): void {
            $table->id();
            $table->string('name', 60)->unique();
            $table->unsignedInteger('version')->default(1);
            $table->string('url', 1000);
            $table->string('method', 6)->charset('ascii')->collation('ascii_bin');
            $table->json('headers');
            $table->text('secret_headers')->nullable();
            $table->text('signing_secret')->nullable();
            $table->unsignedSmallInteger('timeout');
            $table->unsignedSmallInteger('most_tries');
            $table->unsignedSmallInteger('at_once');
            $table->unsignedSmallInteger('per_minute');
            $table->boolean('may_be_inside')->default(false);
            $table->unsignedInteger('failures')->default(0);
            $table->dateTime('rests_until')->nullable();
        });
        Schema::create('calls', function (Blueprint $table): void {
            $table->id();
            $table->char('key', 40)->charset('ascii')->collation('ascii_bin')->unique();
            $table->string('endpoint', 60);
            $table->unsignedBigInteger('rule_id');
            $table->unsignedInteger('page');
            $table->unsignedSmallInteger('place');
            $table->string('line_key', 40)->charset('ascii')->collation('ascii_bin')->default('');
            $table->unsignedBigInteger('run_id')->nullable();
            $table->string('record_type', 40)->charset('ascii')->collation('ascii_bin');
            $table->unsignedBigInteger('record_id');
            $table->unsignedBigInteger('entry_id');
            $table->json('payload');
            $table->string('status', 12)->charset('ascii')->collation('ascii_bin');
            $table->unsignedSmallInteger('tries')->default(0);
            $table->unsignedSmallInteger('unsure')->default(0);
            $table->dateTime('made_at');
            $table->dateTime('next_try_at');
            $table->dateTime('tried_at')->nullable();
            $table->dateTime('leased_until')->nullable();
            $table->string('leased_by', 40)->nullable();
            $table->dateTime('ended_at')->nullable();
            $table->unsignedSmallInteger('answer_status')->nullable();
            $table->mediumText('answer')->nullable();
            $table->string('trouble', 500)->default('');
            $table->index(['status', 'next_try_at']);
            $table->index(['endpoint', 'status', 'id']);
            $table->index(['endpoint', 'tried_at']);
            $table->index(['run_id', 'line_key']);
            $table->index(['record_type', 'record_id']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('calls');
        Schema::dropIfExists('endpoints');
    }
};
