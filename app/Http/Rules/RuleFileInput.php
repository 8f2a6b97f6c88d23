<?php

declare(strict_types=1);

namespace App\Http\Rules;

use Illuminate\Foundation\Http\FormRequest;

final class RuleFileInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['file' => 'required|array'];
    }
}
