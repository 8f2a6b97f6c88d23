<?php

declare(strict_types=1);

namespace App\Http\Writing;

use Illuminate\Foundation\Http\FormRequest;

final class WrittenRuleInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['file' => 'required|array', 'rule' => 'nullable|integer'];
    }
}
