// A rule of our own for the linter: nothing in core reads the clock by making a date of nothing.
export default {
  meta: { name: 'pure' },
  rules: {
    'no-clock': {
      create: (context) => ({
        NewExpression(node) {
          if (node.callee.name === 'Date' && node.arguments.length === 0)
            context.report({ node, message: 'core has no clock: take the time as an argument.' })
        },
      }),
    },
  },
}
