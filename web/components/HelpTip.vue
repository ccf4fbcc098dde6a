<script lang="ts">
// A one-line explanation of a term, on hover and on focus. It only marks what it explains; TipLayer shows the words, so that a page full of tips
// costs nothing while none is shown.
import { cloneVNode, Comment, defineComponent, Text, type VNode } from 'vue'

export default defineComponent({
  name: 'HelpTip',
  props: { text: { type: String, required: true } },
  setup(props, { slots }) {
    const isElement = (node: VNode): boolean => node.type !== Comment && node.type !== Text
    return () => {
      const marked = (slots['default']?.() ?? []).map((node: VNode) => (isElement(node) ? cloneVNode(node, { 'data-tip': props.text }) : node))
      return marked.length === 1 ? marked[0] : marked
    }
  },
})
</script>
