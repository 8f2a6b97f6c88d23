<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use App\Models\Tasks\Task;
use Illuminate\Foundation\Http\FormRequest;

final class OutcomeInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['outcome' => 'nullable|string|max:'.Task::OUTCOME];
    }
}
