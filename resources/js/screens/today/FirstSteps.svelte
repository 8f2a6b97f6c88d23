<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask } from '../../api/client';
    import { session } from '../../state/session.svelte';
    import { within, say } from '../../state/words';

    /* What is to be done in a house that has only just been opened, for as long as no rule is in force. */
    const rules = createQuery(() => ({ queryKey: ['rules'], queryFn: () => ask(api.GET('/api/rules')) }));
    const first = $derived(session.schema?.types[0]);
    const records = createQuery(() => ({
        queryKey: ['records', first?.name, 'any'],
        enabled: first !== undefined,
        queryFn: () => ask(api.GET('/api/records/{type}', { params: { path: { type: first?.name ?? '' } } })),
    }));
    const steps = $derived([
        ...(first
            ? [
                  {
                      done: (records.data?.rows.length ?? 1) > 0,
                      title: `Write down your first ${within(first.label)}`,
                      says: 'By hand, as you would on the first page of a book.',
                      to: `/records/${first.name}/new`,
                  },
              ]
            : []),
        {
            done: false,
            title: 'Put a rule in force',
            says: rules.data?.length
                ? 'The starter rules lie ready: read one, rehearse it on a record, and put it in force.'
                : 'Write one in a sentence, rehearse it, and put it in force.',
            to: '/rules',
        },
        {
            done: session.people.length > 1,
            title: 'Invite your colleagues',
            says: 'A letter brings each of them a link by which they choose a password.',
            to: '/setup/people',
        },
        { done: false, title: 'Look over the setup', says: 'Working hours, letters, sign-offs and your own fields.', to: '/setup' },
    ]);
</script>

{#if rules.data && (records.data || !first)}
    <section class="mb-6" aria-label="First steps">
        <h2 class="mb-2">First steps</h2>
        <ol class="grid gap-2">
            {#each steps as step, index (step.title)}
                <li>
                    <a
                        class="flex items-start gap-3 rounded-lg border border-edge bg-field px-3 py-2.5 hover:border-iris"
                        href={step.to}
                        aria-label="{step.title}{step.done ? say(', done') : ''}"
                    >
                        <span
                            class="figures mt-0.5 grid h-6 w-6 shrink-0 place-items-center rounded-full border text-[12px] {step.done
                                ? 'border-fern bg-fern text-page'
                                : 'border-iris text-iris'}">{step.done ? '✓' : index + 1}</span
                        >
                        <span class="min-w-0">
                            <b class="block text-[13.5px] {step.done ? 'text-ink-3 line-through' : ''}">{step.title}</b>
                            <span class="text-[12.5px] text-ink-2">{step.says}</span>
                        </span>
                    </a>
                </li>
            {/each}
        </ol>
    </section>
{/if}
