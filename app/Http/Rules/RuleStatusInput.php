<?php

declare(strict_types=1);

namespace App\Http\Rules;

use Illuminate\Foundation\Http\FormRequest;

final class RuleStatusInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['status' => 'required|in:in_force,paused,retired'];
    }
}
