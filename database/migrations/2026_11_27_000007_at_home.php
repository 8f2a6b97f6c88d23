<?php

declare(strict_types=1);

use App\Models\LineSort;
use App\Models\ScheduledLine;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** A pencilled row says outright what it is about, in place of columns that are empty or not. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('scheduled_lines', function (Blueprint $table): void {
            $table->string('sort', 8)->charset('ascii')->collation('ascii_bin')->default(LineSort::Line->value)->after('id');
        });
        foreach (['task_due' => LineSort::Task, 'start' => LineSort::Start, 'round' => LineSort::Round] as $kind => $sort) {
            ScheduledLine::rows()->where('kind', $kind)->update(['sort' => $sort]);
        }
    }

    public function down(): void
    {
        Schema::table('scheduled_lines', fn (Blueprint $table) => $table->dropColumn('sort'));
    }
};
