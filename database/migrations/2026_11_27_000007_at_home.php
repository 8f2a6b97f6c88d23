<?php

declare(strict_types=1);

use App\Models\Timing\LineSort;
use App\Models\Timing\ScheduledLine;
use App\Store\Ledger\EntriesIntoData;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/**
 * A pencilled row says outright what it is about. What leaves the house, proofs and runs wait in queues. Entries keep data in place
 * of sentences; going back leaves them so.
 */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('scheduled_lines', function (Blueprint $table): void {
            $table->string('sort', 8)->charset('ascii')->collation('ascii_bin')->default(LineSort::Line->value)->after('id');
        });
        Schema::create('jobs', function (Blueprint $table): void {
            $table->id();
            $table->string('queue', 40)->index();
            $table->longText('payload');
            $table->unsignedTinyInteger('attempts');
            $table->unsignedInteger('reserved_at')->nullable();
            $table->unsignedInteger('available_at');
            $table->unsignedInteger('created_at');
        });
        Schema::create('failed_jobs', function (Blueprint $table): void {
            $table->id();
            $table->string('uuid')->unique();
            $table->text('connection');
            $table->text('queue');
            $table->longText('payload');
            $table->longText('exception');
            $table->timestamp('failed_at')->useCurrent();
        });
        foreach (['task_due' => LineSort::Task, 'start' => LineSort::Start, 'round' => LineSort::Round] as $kind => $sort) {
            ScheduledLine::rows()->where('kind', $kind)->update(['sort' => $sort]);
        }
        app(EntriesIntoData::class)->run();
    }

    public function down(): void
    {
        Schema::dropIfExists('failed_jobs');
        Schema::dropIfExists('jobs');
        Schema::table('scheduled_lines', fn (Blueprint $table) => $table->dropColumn('sort'));
    }
};
