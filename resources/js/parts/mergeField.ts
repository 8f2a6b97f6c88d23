import { mergeAttributes, Node } from '@tiptap/core';

/** A merge field in formatted text: one chip that is moved and deleted as a whole, kept as <span data-merge="path">. */
export const MergeField = Node.create<{ label: (path: string) => string }>({
    name: 'mergeField',
    group: 'inline',
    inline: true,
    atom: true,

    addOptions() {
        return { label: (path: string) => path };
    },

    addAttributes() {
        return {
            path: {
                default: '',
                parseHTML: (element: HTMLElement) => element.dataset.merge ?? '',
                renderHTML: (attributes: Record<string, unknown>) => ({ 'data-merge': attributes.path }),
            },
        };
    },

    parseHTML() {
        return [{ tag: 'span[data-merge]' }];
    },

    renderHTML({ node, HTMLAttributes }) {
        return ['span', mergeAttributes(HTMLAttributes), this.options.label(String(node.attrs.path))];
    },
});
